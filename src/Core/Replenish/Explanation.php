<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/**
 * How a quantity was reached, as the lines of a sum a shopkeeper can add up, and the levels drawn beside it.
 *
 * @phpstan-import-type NoteData from Note
 * @phpstan-type LineData array{string, string, float|int, array<string, float|int|string>}
 * @phpstan-type Data array{lines: list<LineData>, notes: list<NoteData>,
 *      levels: array{safety: float, reorder: float, upTo: float}, leadDays: float}
 */
final readonly class Explanation
{
    /**
     * @param list<ExplanationLine> $lines
     * @param list<Note>            $notes remarks that are not part of the sum
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
                static fn (ExplanationLine $line): array => [
                    $line->term->value,
                    $line->sign,
                    $line->amount,
                    $line->with,
                ],
                $this->lines,
            ),
            'notes' => Note::all($this->notes),
            'levels' => ['safety' => $this->safetyStock, 'reorder' => $this->reorderPoint, 'upTo' => $this->orderUpTo],
            'leadDays' => $this->leadDays,
        ];
    }

    /** @param Data $data */
    public static function fromArray(array $data): self
    {
        return new self(
            array_map(
                static fn (array $line): ExplanationLine => new ExplanationLine(
                    Term::from($line[0]),
                    $line[1],
                    (float) $line[2],
                    $line[3],
                ),
                $data['lines'],
            ),
            array_map(Note::fromArray(...), $data['notes']),
            $data['levels']['safety'],
            $data['levels']['reorder'],
            $data['levels']['upTo'],
            $data['leadDays'],
        );
    }
}
