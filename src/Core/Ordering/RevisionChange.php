<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

/** In what one revision of an order differs from the one before. */
final readonly class RevisionChange
{
    /**
     * @param list<LineRevision> $lines     those that differ, by position
     * @param list<string>       $gone      charges and allowances that no longer stand, in words
     * @param list<string>       $come      and those that did not before
     */
    private function __construct(
        public array $lines,
        public bool $noteDiffers,
        public array $gone,
        public array $come,
    ) {
    }

    /**
     * @param list<StatedLine> $before
     * @param list<StatedLine> $after
     * @param list<string>     $adjustedBefore charges and allowances, in words
     * @param list<string>     $adjustedAfter
     */
    public static function between(
        array $before,
        array $after,
        bool $noteDiffers = false,
        array $adjustedBefore = [],
        array $adjustedAfter = [],
    ): self {
        $was = $is = [];
        foreach ($before as $line) {
            $was[$line->position] = $line;
        }
        foreach ($after as $line) {
            $is[$line->position] = $line;
        }
        $lines = [];
        foreach ($was + $is as $position => $line) {
            $revision = new LineRevision($was[$position] ?? null, $is[$position] ?? null);
            $gone = true === $revision->before?->packs->isZero() && $revision->isWithdrawn();
            if (!$gone && ($revision->isNew() || $revision->isWithdrawn() || [] !== $revision->differing())) {
                $lines[] = $revision;
            }
        }
        usort($lines, static fn (LineRevision $a, LineRevision $b): int => $a->position() <=> $b->position());

        return new self(
            $lines,
            $noteDiffers,
            array_values(array_diff($adjustedBefore, $adjustedAfter)),
            array_values(array_diff($adjustedAfter, $adjustedBefore)),
        );
    }

    public function isNone(): bool
    {
        return [] === $this->lines && !$this->noteDiffers && !$this->isAdjusted();
    }

    /** Whether charges or allowances differ. */
    public function isAdjusted(): bool
    {
        return [] !== $this->gone || [] !== $this->come;
    }

    /** @return list<ChangedPart> what of the order it changes, each once */
    public function parts(): array
    {
        $parts = [];
        if ($this->isAdjusted()) {
            $parts[] = ChangedPart::Charges;
        }
        if ($this->noteDiffers) {
            $parts[] = ChangedPart::Words;
        }
        foreach ($this->lines as $line) {
            if ($line->isNew() || $line->isWithdrawn()) {
                $parts[] = ChangedPart::Goods;
            }
            foreach ($line->differing() as $what) {
                $parts[] = match ($what) {
                    'packs' => ChangedPart::Quantity,
                    'price' => ChangedPart::Price,
                    default => ChangedPart::Day,
                };
            }
        }

        return array_values(array_unique($parts, \SORT_REGULAR));
    }

    public function at(int $position): ?LineRevision
    {
        foreach ($this->lines as $line) {
            if ($line->position() === $position) {
                return $line;
            }
        }

        return null;
    }
}
