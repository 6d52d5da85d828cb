<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Money\Currency;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Quantity\ItemCode;
use TallBarrel\Core\Sourcing\AgreedKind;
use TallBarrel\Core\Sourcing\BreakBasis;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Offer\PriceTerm;
use TallBarrel\Store\Offer\PriceTerms;
use TallBarrel\Store\Person\Person;

/** A price or discount is agreed beyond single offers, changed, or ended: all of it, or nothing. */
final readonly class KeepPriceTerm
{
    public function __construct(
        private EntityManagerInterface $entities,
        private PriceTerms $terms,
        private CurrentBusiness $business,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /** @param Problems $problems takes what stands in the way, by field; nothing is saved then */
    public function agree(PriceTermDetails $details, Person $by, Problems $problems): ?PriceTerm
    {
        $term = new PriceTerm($this->clock->now()->setTime(0, 0));
        $this->apply($term, $details, $problems);
        if (!$problems->areNone()) {
            return null;
        }
        $this->entities->persist($term);
        $this->save($term, $by, 'Agreed');

        return $term;
    }

    /** @param int $version when it was looked at */
    public function change(
        PriceTerm $term,
        PriceTermDetails $details,
        int $version,
        Person $by,
        Problems $problems,
    ): void {
        if ($version !== $term->version()) {
            $problems->refuse(
                '',
                'Somebody changed this while you were typing. Your entries are still in the fields; look at them once '
                .'more and save again.',
            );

            return;
        }
        $this->apply($term, $details, $problems);
        if ($problems->areNone()) {
            $this->save($term, $by, 'Changed');
        } else {
            $this->entities->refresh($term);
        }
    }

    /** What was bought under it keeps its price. */
    public function end(PriceTerm $term, Person $by): void
    {
        $this->audit->note($by, 'agreed price '.$term->name(), 'Taken away: '.self::words($term));
        $this->entities->remove($term);
        $this->entities->flush();
        $this->terms->reset();
    }

    private function apply(PriceTerm $term, PriceTermDetails $details, Problems $problems): void
    {
        $item = null;
        if ('' !== $details->item) {
            $item = $this->entities
                ->getRepository(Item::class)
                ->findOneBy(['code' => ItemCode::chosen($details->item)]);
            if (null === $item) {
                $problems->refuse('item', sprintf('There is no item “%s”; type its code.', $details->item));
            }
        }
        if (null !== $details->supplier && '' !== $details->supplierGroup) {
            $problems->refuse('supplier_group', 'It is for one supplier or for a group, not for both.');
        } elseif (null !== $item && '' !== $details->itemGroup) {
            $problems->refuse('item_group', 'It is on one item or on a group, not on both.');
        } else {
            $term->isFor($details->supplier, $details->supplierGroup, $item, $details->itemGroup);
        }
        $currency = $details->supplier?->currency()->code ?? $this->currency($details, $problems);
        $problems->apply('steps', fn () => $term->gives(
            $details->name,
            $details->kind,
            $details->basis,
            AgreedKind::Price === $details->kind || BreakBasis::Value === $details->basis ? $currency : '',
            $details->steps,
        ));
        $problems->apply('last_day', fn () => $term->hold(
            $details->firstDay ?? $this->clock->now()->setTime(0, 0),
            $details->lastDay,
        ));
    }

    private function currency(PriceTermDetails $details, Problems $problems): string
    {
        return '' === $details->currency
            ? $this->business->get()->homeCurrency()->code
            : $problems->attempt('currency', static fn (): string => Currency::of($details->currency)->code) ?? '';
    }

    private function save(PriceTerm $term, Person $by, string $what): void
    {
        $this->audit->note($by, 'agreed price '.$term->name(), $what.': '.self::words($term));
        $this->entities->flush();
        $this->terms->reset();
    }

    /** "North on everything, 5 %, from 1 Dec 2026". */
    private static function words(PriceTerm $term): string
    {
        return sprintf(
            '%s on %s, %s, from %s%s',
            $term->whom(),
            $term->what(),
            $term->agreed()->label(),
            $term->firstDay()->format('j M Y'),
            null === $term->lastDay() ? '' : ' to '.$term->lastDay()->format('j M Y'),
        );
    }
}
