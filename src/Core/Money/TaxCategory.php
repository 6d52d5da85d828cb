<?php

declare(strict_types=1);

namespace TallBarrel\Core\Money;

/**
 * Why a line is taxed, or is not. The values are the codes of UNTDID 5305 that EN 16931-1:2017 allows (BT-118, BT-151).
 */
enum TaxCategory: string
{
    case Standard = 'S';
    case ZeroRated = 'Z';
    case Exempt = 'E';
    case ReverseCharge = 'AE';
    case WithinTheUnion = 'K';
    case Import = 'G';
    case OutsideScope = 'O';

    /** @return list<self> those without a rate */
    public static function untaxed(): array
    {
        return array_values(
            array_filter(self::cases(), static fn (self $category): bool => self::Standard !== $category),
        );
    }

    /**
     * Whether the tax is owed by who buys, and not to the seller (Directive 2006/112/EC, articles 194 to 200; where it
     * may be deducted, article 168, both stand on one day).
     */
    public function isOwedByBuyer(): bool
    {
        return in_array($this, [self::ReverseCharge, self::WithinTheUnion], true);
    }

    public function words(): string
    {
        return match ($this) {
            self::Standard => 'taxed',
            self::ZeroRated => 'zero rated',
            self::Exempt => 'exempt',
            self::ReverseCharge => 'reverse charge',
            self::WithinTheUnion => 'from another member state',
            self::Import => 'import, taxed at the border',
            self::OutsideScope => 'outside the scope of tax',
        };
    }
}
