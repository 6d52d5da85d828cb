<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Orders;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Quantity\Gtin;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Agreement\Agreements;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Offer\OfferPrices;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Store\Supplier\Supplier;

/** Applies the order page's form to a draft: all of it, or nothing and the reasons. */
final readonly class OrderEditing
{
    public function __construct(private EntityManagerInterface $entities, private Orders $orders, private Sites $sites, private Audit $audit, private Agreements $agreements, private OfferPrices $prices, private ClockInterface $clock)
    {
    }

    /** Problems are left in the fields, under the names of the inputs they stand beside. */
    public function save(PurchaseOrder $order, Fields $fields, Person $person): void
    {
        $connection = $this->entities->getConnection();
        $connection->beginTransaction();
        try {
            $order = $this->orders->lock($order->id);
            if ($order->version() !== (int) $fields->text('version')) {
                $last = $this->audit->of($order->number, 1)[0] ?? null;
                throw new Refused(sprintf('%s changed this order while you were typing. What stands there now is in grey beside your figures; save again to use yours.', $last->person?->firstName() ?? 'Somebody'));
            }
            $before = $order->totals()->goods;
            $this->lines($order, $fields);
            $this->add($order, $fields);
            $this->pick($order, $fields);
            $this->facts($order->supplier, $fields);
            $wanted = $fields->day('wanted', $fields->text('wanted')) ?? $order->wantedOn();
            $order->change($wanted, $fields->text('note', 500));
            if (!$fields->isGood()) {
                throw new Refused('Some of what was typed cannot be saved; see the marked places. Nothing has been changed yet.');
            }
            if (!$before->amount->isEqualTo($order->totals()->goods->amount)) {
                $this->audit->note($person, $order->number, sprintf('Changed from %s %s to %s %s', $before->rounded()->amount, $order->currency, $order->totals()->goods->amount, $order->currency));
            } else {
                $this->audit->note($person, $order->number, 'Saved');
            }
            $this->entities->flush();
            // The version moves with every save, so that a second person's page is known to be old.
            $connection->executeStatement('UPDATE purchase_order SET version = version + 1 WHERE id = ? AND version = ?', [$order->id, (int) $fields->text('version')]);
            $connection->commit();
            $this->entities->refresh($order);
        } catch (Refused $refused) {
            $connection->rollBack();
            $fields->refuse('order', $refused->getMessage());
            $this->entities->clear();
        } catch (\Throwable $error) {
            $connection->rollBack();
            throw $error;
        }
    }

    private function lines(PurchaseOrder $order, Fields $fields): void
    {
        [$quantities, $prices, $codes, $removed] = [$fields->each('quantity'), $fields->each('price'), $fields->each('code'), $fields->each('remove')];
        foreach ($order->lines() as $line) {
            if (isset($removed[$line->id])) {
                $order->remove($line);
                continue;
            }
            if (!isset($quantities[$line->id], $prices[$line->id])) {
                continue;
            }
            $packs = $fields->quantity('quantity-'.$line->id, $quantities[$line->id]) ?? BigDecimal::zero();
            $price = $fields->price('price-'.$line->id, $prices[$line->id]) ?? $line->price();
            if (isset($fields->errors['quantity-'.$line->id]) || isset($fields->errors['price-'.$line->id])) {
                continue;
            }
            // Untouched, the price follows the breaks; typed, it stands.
            if ($price->isEqualTo($line->price()) && null !== $line->offer && !$packs->isEqualTo($line->packs()) && $line->price()->isEqualTo($line->offer->prices()->priceFor($line->packs()))) {
                $price = $line->offer->prices()->priceFor($packs);
            }
            $fields->apply('quantity-'.$line->id, static fn () => $line->change($packs, $price));
            $this->standing($line, $fields);
            if ('' !== ($codes[$line->id] ?? '')) {
                $line->recode($codes[$line->id]);
            }
        }
    }

    /** Where a price was changed by hand, the standing offer and the standard cost follow only if that is ticked. */
    private function standing(OrderLine $line, Fields $fields): void
    {
        $offer = $line->offer;
        if (null === $offer) {
            return;
        }
        $today = $this->clock->now()->setTime(0, 0);
        if (isset($fields->each('follow_offer')[$line->id])) {
            $listed = $line->price()->dividedBy($offer->discounts()->factor(), 4, RoundingMode::HalfUp);
            $prices = $fields->attempt('price-'.$line->id, static fn (): PriceBreaks => $offer->listPrices()->withPriceAt($line->packs(), $listed));
            if (null !== $prices) {
                $this->prices->change($offer, $prices, $today, $today, 'by hand on '.$line->order->number);
            }
        }
        if (isset($fields->each('follow_cost')[$line->id]) && null !== $line->item) {
            $line->item->costs($line->item->averageCost(), $line->order->rate()->toHome(Money::of($line->price(), $line->order->currency))->amount->dividedBy($line->pack()->content, 6, RoundingMode::HalfUp));
        }
    }

    private function add(PurchaseOrder $order, Fields $fields): void
    {
        $wanted = $fields->text('add');
        if ('' === $wanted) {
            return;
        }
        $packs = $fields->quantity('add', $fields->text('add_quantity'));
        $price = $fields->price('add', $fields->text('add_price'));
        $site = $this->sites->find((int) $fields->text('add_site')) ?? $order->sites()[0] ?? $this->sites->all()[0];
        if (isset($fields->errors['add'])) {
            return;
        }
        $offer = $this->offer($order->supplier, $wanted);
        if (null !== $offer) {
            $fields->apply('add', fn () => $this->fromOffer($order, $offer, $site, $packs ?? $offer->rule()->packsFor(1), $price));
        } elseif (null !== ($item = $this->item($wanted))) {
            $others = array_unique(array_map(static fn (Offer $other): string => $other->supplier->name(), $this->entities->getRepository(Offer::class)->findBy(['item' => $item], ['rank' => 'ASC'])));
            $fields->refuse('add', sprintf('%s does not offer %s; %s.', $order->supplier->name(), $item->code, [] === $others ? 'nobody does yet. Add an offer on a supplier’s page' : implode(', ', $others).(1 === count($others) ? ' does' : ' do')));
        } elseif (null === $price) {
            $fields->refuse('add', sprintf('%s offers nothing called “%s”. To add it as free text, type a price too.', $order->supplier->name(), $wanted));
        } else {
            $packs ??= BigDecimal::one();
            if (!$packs->isPositive()) {
                $fields->refuse('add', 'Type how many are wanted.');

                return;
            }
            OrderLine::ofText($order, $wanted, $site, $packs, $price);
        }
    }

    /** Lines for what was typed beside the supplier's own list. */
    private function pick(PurchaseOrder $order, Fields $fields): void
    {
        $site = $this->sites->find((int) $fields->text('add_site')) ?? $order->sites()[0] ?? $this->sites->all()[0];
        foreach (array_filter($fields->each('pick'), static fn (string $typed): bool => '' !== $typed) as $id => $typed) {
            $packs = $fields->quantity('pick-'.$id, $typed);
            $offer = $this->entities->find(Offer::class, $id);
            if (null === $packs || !$packs->isPositive() || null === $offer || $offer->supplier !== $order->supplier) {
                continue;
            }
            $fields->apply('pick-'.$id, fn () => $this->fromOffer($order, $offer, $site, $packs, null));
        }
    }

    /** @throws InvalidValue if they do not sell it so */
    private function fromOffer(PurchaseOrder $order, Offer $offer, Site $site, BigDecimal $packs, ?BigDecimal $price): void
    {
        $objection = match (true) {
            $offer->isBlocked() => sprintf('The offer of %s is blocked; take that back on its page first.', $offer->item->code),
            !$offer->isInForce($this->clock->now()) => sprintf('The offer of %s does not hold today; see its dates on its page.', $offer->item->code),
            default => $packs->isPositive() ? $offer->rule()->objectionTo($packs) : 'Type how many are wanted.',
        };
        if (null !== $objection) {
            throw InvalidValue::because($objection);
        }
        $line = OrderLine::fromOffer($order, $offer, $site, $packs);
        $this->agreements->attach($line, $this->clock->now());
        if (null !== $price) {
            $line->change($packs, $price);
        }
    }

    private function offer(Supplier $supplier, string $wanted): ?Offer
    {
        $code = trim(explode(' · ', $wanted)[0]);
        /** @var list<Offer> $offers */
        $offers = $this->entities->createQueryBuilder()->select('o', 'i')->from(Offer::class, 'o')->join('o.item', 'i')
            ->where('o.supplier = :supplier AND (i.code = :code OR o.supplierCode = :code OR i.gtin = :gtin OR i.name = :code)')
            ->setParameter('supplier', $supplier)->setParameter('code', $code)->setParameter('gtin', Gtin::tryOf($code)->digits ?? '')
            ->orderBy('o.rank')->setMaxResults(1)->getQuery()->getResult();

        return $offers[0] ?? null;
    }

    private function item(string $code): ?Item
    {
        return $this->entities->getRepository(Item::class)->findOneBy(['code' => trim(explode(' · ', $code)[0])]);
    }

    /** What was missing of the supplier, mended from the order's page. */
    private function facts(Supplier $supplier, Fields $fields): void
    {
        $contact = $supplier->contact();
        [$name, $email] = [$fields->text('contact', 80), $fields->text('email', 180)];
        if ('' !== $name || '' !== $email) {
            $fields->apply('email', static fn () => $supplier->orderThrough('' !== $name ? $name : $contact?->name() ?? '', '' !== $email ? $email : $contact?->email() ?? '', $contact?->phone() ?? ''));
        }
        if ('' !== $fields->text('street', 120)) {
            $fields->apply('country', static fn () => $supplier->moveTo($fields->text('street', 120), $fields->text('postcode', 20), $fields->text('city', 80), $fields->text('country', 2)));
        }
        $net = $fields->text('net_days', 3);
        if ('' !== $net) {
            $fields->apply('net_days', static function () use ($supplier, $net): void {
                if (1 !== preg_match('/^\d+$/', $net)) {
                    throw InvalidValue::notANumber($net, 'days until payment is due, such as 30');
                }
                $supplier->agreeTerms(PaymentTerms::net((int) $net));
            });
        }
    }
}
