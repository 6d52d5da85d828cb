<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Reorder;

use TallBarrel\Core\Money\Money;
use TallBarrel\Desk\Drawing\Barrel;
use TallBarrel\Desk\Drawing\Sparkline;
use TallBarrel\Store\Planning\BoardLine;

/** One proposal as a row of the board, with its drawings. */
final readonly class ReorderRow
{
    /**
     * @param list<array{site: string, siteId: int, units: float, saves: float, risks: float}> $moves what other sites
     *      should give instead, and what that saves here and risks there, home currency
     */
    public function __construct(
        public BoardLine $line,
        public Barrel $barrel,
        public Sparkline $sales,
        public ?Money $price,
        /** Percent against the last price paid. */
        public ?float $priceChange,
        public array $moves,
        /** Stock units, before rounding to what can be bought. */
        public float $needed,
        /** What was typed and cannot be bought, with the reason. */
        public string $typed = '',
        public string $objection = '',
    ) {
    }

    /** Gone before an order sent now would be here. */
    public function isShort(): bool
    {
        return null !== $this->line->coverDays && $this->line->coverDays < $this->line->arrivesIn;
    }

    public function refused(string $typed, string $objection): self
    {
        return new self(
            $this->line,
            $this->barrel,
            $this->sales,
            $this->price,
            $this->priceChange,
            $this->moves,
            $this->needed,
            $typed,
            $objection,
        );
    }
}
