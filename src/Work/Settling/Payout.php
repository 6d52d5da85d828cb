<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use TallBarrel\Core\Money\Money;

/** What left our account. */
final readonly class Payout
{
    /** @param string $reference where it stands with the bank; empty where somebody noted it */
    public function __construct(public Money $amount, public string $reference)
    {
    }
}
