<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Brick\Math\BigDecimal;
use Symfony\Component\Validator\Constraints as Assert;
use TallBarrel\Core\Settling\Valuing;
use TallBarrel\Store\Business\Business;

/** What money and taking goods in cost, as it is typed. */
final class CostRatesEntry
{
    #[Assert\NotNull(message: 'Say what it costs; 0 for nothing.')]
    public ?BigDecimal $money;
    #[Assert\NotNull(message: 'Say what it costs; 0 for nothing.')]
    public ?BigDecimal $exchange;

    public bool $expects;
    public Valuing $valuing;
    #[Assert\NotNull(message: 'Say what it costs; 0 for nothing.')]
    public ?BigDecimal $handlingPercent;
    #[Assert\NotNull(message: 'Say what it costs; 0 for nothing.')]
    public ?BigDecimal $handlingAmount;

    public function __construct(Business $business)
    {
        $this->valuing = $business->valuing();
        $this->expects = $business->expectsCharges();
        $this->handlingPercent = $business->handlingPercent();
        $this->handlingAmount = $business->handlingAmount();
        $this->money = $business->moneyPercent();
        $this->exchange = $business->exchangePercent();
    }
}
