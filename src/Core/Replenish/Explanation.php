<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/**
 * How a quantity was reached, as the lines of a sum a shopkeeper can add up, and the levels drawn beside it.
 *
 * @phpstan-type Data array{lines: list<array{string, string, string, bool}>, notes: list<string>, levels: array{
 *      safety: float, reorder: float, upTo: float}, leadDays: float}
 */
final readonly class Explanation
{
    /**
     * @param list<ExplanationLine> $lines
     * @param list<string>          $notes remarks that are not part of the sum
     */
    public function __construct(
        public array $lines,
        public array $notes,
        public float $safetyStock,
        public float $reorderPoint,
        public float $orderUpTo,
        public float $leadDays,
    ) {
    }

    /** @return Data */
    public function toArray(): array
    {
        return [
            'lines' => array_map(
                static fn (ExplanationLine $line): array => [$line->label, $line->sign, $line->figure, $line->total],
                $this->lines,
            ),
            'notes' => $this->notes,
            'levels' => ['safety' => $this->safetyStock, 'reorder' => $this->reorderPoint, 'upTo' => $this->orderUpTo],
            'leadDays' => $this->leadDays,
        ];
    }

    /** @param Data $data */
    public static function fromArray(array $data): self
    {
        return new self(
            array_map(
                static fn (array $line): ExplanationLine => new ExplanationLine($line[0], $line[1], $line[2], $line[3]),
                $data['lines'],
            ),
            $data['notes'],
            $data['levels']['safety'],
            $data['levels']['reorder'],
            $data['levels']['upTo'],
            $data['leadDays'],
        );
    }
}
