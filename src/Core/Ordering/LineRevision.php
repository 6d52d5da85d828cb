<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

/** What a revision makes of one line: before and after; one of them is null where it is new, or goes. */
final readonly class LineRevision
{
    public function __construct(public ?StatedLine $before, public ?StatedLine $after)
    {
    }

    public function position(): int
    {
        return $this->after->position ?? $this->before->position ?? 0;
    }

    public function isNew(): bool
    {
        return null === $this->before;
    }

    /** No longer wanted, or wanted no more of. */
    public function isWithdrawn(): bool
    {
        return null === $this->after || $this->after->packs->isZero();
    }

    /** @return list<string> which of packs, price and wanted differ; none for a line that is new or goes */
    public function differing(): array
    {
        if (null === $this->before || null === $this->after || $this->isWithdrawn()) {
            return [];
        }

        return array_keys(
            array_filter([
                'packs' => !$this->before->packs->isEqualTo($this->after->packs),
                'price' => !$this->before->price->isEqualTo($this->after->price),
                'wanted' => $this->before->wanted !== $this->after->wanted,
            ]),
        );
    }
}
