<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Reorder;

use TallBarrel\Core\Money\Money;
use TallBarrel\Desk\Drawing\Barrel;
use TallBarrel\Desk\Drawing\Sparkline;
use TallBarrel\Store\Planning\SavedProposal;

/** One proposal as a line on the board. */
final readonly class ReorderRow
{
    /** @param list<array{site: string, siteId: int, units: float}> $moves what other sites could give instead */
    public function __construct(
        public SavedProposal $proposal,
        public Barrel $barrel,
        public Sparkline $sales,
        public float $onHand,
        public float $coming,
        public ?Money $price,
        public ?float $priceChange,
        public ?Money $line,
        public string $packLabel,
        public array $moves,
        /** Stock units, before rounding to what can be bought. */
        public float $needed,
        /** What was typed and cannot be bought, with the reason. */
        public string $typed = '',
        public string $objection = '',
    ) {
    }

    public function isOpen(): bool
    {
        return null === $this->proposal->draft() && null !== $this->proposal->offer();
    }

    public function isChosen(): bool
    {
        return $this->isOpen() && $this->proposal->isChosen();
    }

    public function refused(string $typed, string $objection): self
    {
        return new self(
            $this->proposal,
            $this->barrel,
            $this->sales,
            $this->onHand,
            $this->coming,
            $this->price,
            $this->priceChange,
            $this->line,
            $this->packLabel,
            $this->moves,
            $this->needed,
            $typed,
            $objection,
        );
    }
}
