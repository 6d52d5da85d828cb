<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Brick\Math\BigDecimal;
use Symfony\Component\Validator\Constraints as Assert;
use TallBarrel\Store\Business\Business;

/** What money costs, as it is typed; percent. */
final class CostRatesEntry
{
    #[Assert\NotNull(message: 'Say what it costs; 0 for nothing.')]
    public ?BigDecimal $money;
    #[Assert\NotNull(message: 'Say what it costs; 0 for nothing.')]
    public ?BigDecimal $exchange;

    public function __construct(Business $business)
    {
        $this->money = $business->moneyPercent();
        $this->exchange = $business->exchangePercent();
    }
}
