<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing\Award;

/** Who gets what of a basket, and what it costs in the home currency. */
final readonly class Award
{
    private const CENT = 0.0051;

    /**
     * @param array<int|string, string> $chosen supplier by line
     * @param array<int|string, Share>  $shares by supplier
     * @param list<string>          $unmet  lines nobody may supply
     * @param float                 $gap    the most that a better award could save; infinite where nobody looked
     * @param int                   $steps  partial awards looked at
     * @param list<Split>           $splits lines of which a part goes to a second supplier
     */
    public function __construct(
        public array $chosen,
        public array $shares,
        public array $unmet,
        public float $gap,
        public int $steps,
        public array $splits = [],
    ) {
    }

    public function cost(): float
    {
        return array_sum(array_map(static fn (Share $share): float => $share->cost(), $this->shares));
    }

    /** Whether every order reaches its minimum and stays within the capacity. */
    public function isAllowed(): bool
    {
        return [] === array_filter($this->shares, static fn (Share $share): bool => null !== $share->short);
    }

    /** To half a cent, among those that break no limit and give each line to one supplier. */
    public function isProvenBest(): bool
    {
        return $this->isAllowed() && $this->gap <= self::CENT;
    }

    /** What splitting lines saves, home currency. */
    public function savedBySplits(): float
    {
        return array_sum(array_map(static fn (Split $split): float => $split->saves, $this->splits));
    }

    public function splitOf(int|string $line): ?Split
    {
        foreach ($this->splits as $split) {
            if ($split->line === (string) $line) {
                return $split;
            }
        }

        return null;
    }

    /**
     * Whether the minimums and capacities can be kept at all: false where it is proven that they cannot, null where no
     * award was found that does.
     */
    public function canBeKept(): ?bool
    {
        return $this->isAllowed() ? true : ($this->gap <= self::CENT ? false : null);
    }
}
