<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Today;

use TallBarrel\Core\Money\Money;
use TallBarrel\Desk\Drawing\Barrel;

/** One thing that waits for a person, and where it is settled. */
final readonly class TodayEntry
{
    public function __construct(
        public bool $urgent,
        public string $title,
        public string $words,
        public ?Money $money,
        public string $moneyWords,
        public string $url,
        public string $action,
        public ?Barrel $barrel = null,
    ) {
    }
}
