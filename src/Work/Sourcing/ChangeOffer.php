<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\AllowanceCharge;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\ItemCode;
use TallBarrel\Core\Quantity\Numerals;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Sourcing\ChainedDiscounts;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Offer\OfferPrices;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Supplier;

/** Adds an offer, or changes what is kept of one: all of it, or nothing. */
final readonly class ChangeOffer
{
    public function __construct(
        private EntityManagerInterface $entities,
        private OfferPrices $prices,
        private CurrentBusiness $business,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /** @return Offer|null null with the reasons noted, by field */
    public function begin(Supplier $supplier, OfferDetails $details, Problems $problems, Person $person): ?Offer
    {
        $item = $this->item($details->item);
        $pack = mb_strtolower($details->pack) ?: 'piece';
        if (null === $item) {
            $problems->refuse('item', sprintf('There is no item “%s”; type its code.', $details->item));

            return null;
        }
        $there = $this->entities
            ->getRepository(Offer::class)
            ->findOneBy(['supplier' => $supplier, 'item' => $item, 'packName' => $pack]);
        if (null !== $there) {
            $problems->refuse(
                'pack',
                sprintf(
                    'They offer it by the %s already, as %s.',
                    $pack,
                    $there->supplierCode() ?: 'an offer without a code',
                ),
            );

            return null;
        }
        $offer = $problems->attempt(
            'content',
            fn (): Offer => new Offer(
                $supplier,
                $item,
                $details->supplierCode,
                $pack,
                self::content($item, $details),
            ),
        );
        $prices = $this->typedPrices($details, $problems);
        if (null === $offer || null === $prices) {
            return null;
        }
        $this->apply($offer, $details, $problems);
        if (!$problems->areNone()) {
            return null;
        }
        $offer->price($prices);
        $this->entities->persist($offer);
        $this->audit->note($person, 'supplier '.$supplier->code, sprintf('Offer of %s added', $item->code));
        $this->entities->flush();

        return $offer;
    }

    /**
     * @param int      $version  of the offer when it was looked at
     * @param Problems $problems what could not be read already; what else stands in the way is added, by field. Nothing
     *                           is saved unless there are none
     */
    public function change(
        Offer $offer,
        OfferDetails $details,
        int $version,
        Person $person,
        Problems $problems,
    ): void {
        if ($version !== $offer->version()) {
            $problems->refuse(
                '',
                'Somebody changed this offer while you were typing. Your entries are still in the fields; look at '
                .'them once more and save again.',
            );

            return;
        }
        $prices = $this->typedPrices($details, $problems);
        $before = $offer->listPrices();
        $this->apply($offer, $details, $problems);
        if (null === $prices || !$problems->areNone()) {
            $this->entities->refresh($offer);

            return;
        }
        if ([$before->label(), $before->kind, $before->basis] !== [$prices->label(), $prices->kind, $prices->basis]) {
            $today = $this->clock->now()->setTime(0, 0);
            $from = $details->pricesFrom ?? $today;
            $this->prices->change($offer, $prices, $from, $today, 'by hand, '.$person->firstName());
            $this->audit->note(
                $person,
                'supplier '.$offer->supplier->code,
                sprintf(
                    'Price of %s from %s to %s, from %s',
                    $offer->item->code,
                    $before->label(),
                    $prices->label(),
                    $from->format('j M Y'),
                ),
            );
        }
        $this->entities->flush();
    }

    /** @param list<AllowanceCharge> $charges that it brings to an order; all there are to be */
    public function bring(Offer $offer, array $charges, Person $person): void
    {
        $offer->brings($charges);
        $words = array_map(static fn (AllowanceCharge $one): string => $one->words(), $charges);
        $this->audit->note($person, 'supplier '.$offer->supplier->code, sprintf(
            '%s brings %s',
            $offer->item->code,
            [] === $words ? 'no charges' : implode('; ', $words),
        ));
        $this->entities->flush();
    }

    /** The item of a code, or of a code and a name as a list offers them. */
    public function item(string $typed): ?Item
    {
        return $this->entities
            ->getRepository(Item::class)
            ->findOneBy(['code' => ItemCode::chosen($typed)]);
    }

    /** All but the prices. */
    private function apply(Offer $offer, OfferDetails $details, Problems $problems): void
    {
        $problems->apply(
            'content',
            fn () => $offer->sellBy(
                BuyingRule::of(
                    Pack::of($offer->packName, self::content($offer->item, $details)),
                    $details->minimum ?? BigDecimal::one(),
                    $details->multiple ?? BigDecimal::one(),
                    $details->split,
                ),
            ),
        );
        $unit = $details->contentUnit;
        $problems->apply(
            'outer_packs',
            fn () => $offer->describe(
                $details->description,
                null === $unit || $unit === $offer->item->unit ? '' : $details->content.' '.$unit->value,
                $details->outerPacks,
            ),
        );
        $offer->recode($details->supplierCode);
        $problems->apply(
            'discounts',
            fn () => $offer->discount(ChainedDiscounts::read($details->discounts, $this->numerals())),
        );
        $problems->apply(
            'valid_until',
            fn () => $offer->promise(
                $details->leadDays ?? $offer->leadDays(),
                max(1, $details->rank ?? $offer->rank()),
                $details->validUntil,
                $details->validFrom,
            ),
        );
        $problems->apply(
            'tariff_number',
            fn () => $offer->comesFrom(
                $details->origin,
                $details->tariffNumber,
                $details->dutyPercent ?? BigDecimal::zero(),
            ),
        );
        $offer->isMadeBy($details->manufacturer, $details->packing);
        $offer->inspect($details->inspected);
        $problems->apply(
            'consigned_days',
            static fn () => $offer->consign($details->consigned, $details->consignedDays ?? 0),
        );
        $offer->block($details->blocked);
        if ((null === $details->risePercent) !== (null === $details->riseOn)) {
            $problems->refuse(
                null === $details->risePercent ? 'rise_percent' : 'rise_on',
                'An announced rise needs both a percentage and a day.',
            );
        }
        $offer->announce($details->risePercent, $details->riseOn);
    }

    /** @throws InvalidValue */
    private static function content(Item $item, OfferDetails $details): BigDecimal
    {
        $content = $details->content
            ?? throw InvalidValue::because('Say what one pack holds, such as 12.');

        return null === $details->contentUnit
            ? $content
            : $item->unit->amountOf($content, $details->contentUnit);
    }

    private function typedPrices(OfferDetails $details, Problems $problems): ?PriceBreaks
    {
        return $problems->attempt(
            'prices',
            fn (): PriceBreaks => PriceBreaks::read(
                $details->prices,
                $details->breakKind,
                $details->breakBasis,
            ),
        );
    }

    private function numerals(): Numerals
    {
        return Numerals::with($this->business->get()->decimalMark());
    }
}
