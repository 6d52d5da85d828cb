<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use TallBarrel\Core\Replenish\Transport;

#[AsCommand('replenish:transport', 'Tells which site brings how much to which at the least cost.')]
final class TransportCommand extends AnswerFromFile
{
    protected const FILE = 'JSON with spare, needed and ways; see docs/planning.md';

    /** @return array{cost: float, moves: list<array{from: string, to: string, units: float, cost: float}>} */
    protected function answer(string $file): array
    {
        $asked = TransportFile::read($file);
        $moves = [];
        foreach (Transport::cheapest($asked->spare, $asked->needed, $asked->ways, $asked->names) as $from => $to) {
            foreach ($to as $site => $units) {
                [$once, $each] = $asked->ways[$from][$site];
                $moves[] = [
                    'from' => $asked->names[$from],
                    'to' => $asked->names[$site],
                    'units' => $units,
                    'cost' => round($once + $units * $each, 6),
                ];
            }
        }

        return ['cost' => round(array_sum(array_column($moves, 'cost')), 6), 'moves' => $moves];
    }
}
