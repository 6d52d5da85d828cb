<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\Demand\Cleaning;
use TallBarrel\Core\Demand\WeeklyHistory;

/** What sold at a place, and what people say of it. */
final readonly class DemandRecord
{
    /** An item with fewer weeks of its own is expected to sell like the one it was said to. */
    private const OWN_WEEKS = 13;

    /**
     * @param array<int, bool>  $verdicts    whether a week of the history counts, by its position
     * @param list<Adjustment>  $adjustments
     */
    public function __construct(
        public WeeklyHistory $own,
        public ?SellsLike $like = null,
        public array $verdicts = [],
        public array $adjustments = [],
    ) {
    }

    /** The other item, while there is too little history of its own. */
    public function standsIn(): ?SellsLike
    {
        return $this->own->sinceFirstSale()->weeks() < self::OWN_WEEKS ? $this->like : null;
    }

    public function cleaned(): Cleaning
    {
        $like = $this->standsIn();
        $history = null === $like ? $this->own : $like->history->times($like->factor);

        return Cleaning::of($history, null === $this->like ? $this->verdicts : []);
    }
}
