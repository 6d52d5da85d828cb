<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Brick\Math\BigDecimal;
use TallBarrel\Store\Business\Business;

/** What is kept of the business itself, as plain values. */
final class BusinessDetails
{
    public string $name = '';
    public string $address = '';
    public string $taxNumber = '';
    /** ISO 3166, two letters. */
    public ?string $country = null;
    public string $mark = '.';
    public ?BigDecimal $orderCost = null;
    /** Percent a year. */
    public ?BigDecimal $holding = null;
    public string $foot = '';
    /** A new logo's bytes; null to leave it as it is. */
    public ?string $logo = null;
    public bool $dropLogo = false;

    public static function of(Business $business): self
    {
        $details = new self();
        $details->name = $business->name();
        $details->address = $business->address();
        $details->taxNumber = $business->taxNumber();
        $details->country = '' === $business->country() ? null : $business->country();
        $details->mark = $business->decimalMark();
        $details->orderCost = $business->orderCost();
        $details->holding = $business->holdingPercent();
        $details->foot = $business->paperFoot();

        return $details;
    }
}
