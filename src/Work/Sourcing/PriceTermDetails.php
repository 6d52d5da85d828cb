<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

use TallBarrel\Core\Sourcing\AgreedKind;
use TallBarrel\Core\Sourcing\BreakBasis;
use TallBarrel\Store\Offer\PriceTerm;
use TallBarrel\Store\Supplier\Supplier;

/** What was agreed beyond single offers, as plain values: what stands, to be changed. */
final class PriceTermDetails
{
    public string $name = '';
    public ?Supplier $supplier = null;
    public string $supplierGroup = '';
    /** A code, or a code and a name as a list offers them. */
    public string $item = '';
    public string $itemGroup = '';
    public AgreedKind $kind = AgreedKind::Discount;
    public BreakBasis $basis = BreakBasis::Quantity;
    public string $currency = '';
    /** With a decimal point. */
    public string $steps = '';
    public ?\DateTimeImmutable $firstDay = null;
    public ?\DateTimeImmutable $lastDay = null;

    public static function of(PriceTerm $term): self
    {
        $details = new self();
        $details->name = $term->name();
        $details->supplier = $term->supplier();
        $details->supplierGroup = $term->supplierGroup();
        $details->item = $term->item()->code ?? '';
        $details->itemGroup = $term->itemGroup();
        $details->kind = $term->kind();
        $details->basis = $term->basis();
        $details->currency = $term->currency();
        $details->steps = $term->steps();
        $details->firstDay = $term->firstDay();
        $details->lastDay = $term->lastDay();

        return $details;
    }
}
