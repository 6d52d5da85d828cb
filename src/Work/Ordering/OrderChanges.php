<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\AllowanceCharge;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Ordering\PastedLines;
use TallBarrel\Core\Ordering\Shipping;
use TallBarrel\Core\Problems;

/** What a person made of a draft: all of it is saved, or nothing. */
final readonly class OrderChanges
{
    /**
     * @param array<int, LineChange>  $lines    by the line's id
     * @param list<int>               $removed  ids of lines
     * @param array<int, BigDecimal>  $picked   packs by offer, from the supplier's own list
     * @param int|null                $site     for what is added; null for where the others go
     * @param bool                    $sweep    whether lines of a quantity of 0 go
     * @param list<AllowanceCharge>|null   $adjustments all there are to be; null for as they were
     * @param Shipping|null           $shipping null for as it was
     * @param string|null             $paidTo   code or name of who is paid; empty for the supplier itself; null for as
     *                                          it was
     * @param Tax|null                $tax      of all lines that have none of their own; null for as it was
     * @param Problems $problems what could not even be read; nothing is saved then, but the rest is checked too
     */
    public function __construct(
        public int $version,
        public array $lines,
        public array $removed,
        public ?AddedLine $added,
        public array $picked,
        public ?int $site,
        public ?\DateTimeImmutable $wantedOn,
        public string $note,
        public SupplierMending $mending,
        public Problems $problems = new Problems(),
        public ?PastedLines $pasted = null,
        public bool $sweep = false,
        public ?array $adjustments = null,
        public ?Tax $tax = null,
        public ?Shipping $shipping = null,
        public ?string $paidTo = null,
    ) {
    }
}
