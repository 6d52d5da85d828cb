<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Day;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Ordering\PastedLine;
use TallBarrel\Core\Ordering\PastedLines;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\CustomerPromise;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Offer\OfferPrices;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Store\Supplier\Supplier;

/** Changes a draft: all that was typed, or nothing and the reasons. */
final readonly class EditOrder
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Orders $orders,
        private Sites $sites,
        private OfferWanted $wanted,
        private Audit $audit,
        private PutOnOrder $lines,
        private OfferPrices $prices,
        private ClockInterface $clock,
    ) {
    }

    /** Nothing is saved where anything stands in the way. */
    public function save(PurchaseOrder $order, OrderChanges $changes, Person $person): SavedOrder
    {
        $problems = $changes->problems;
        $saved = new SavedOrder($problems);
        $connection = $this->entities->getConnection();
        $connection->beginTransaction();
        try {
            $order = $this->orders->lock($order->id);
            $this->orders->withOffers($order);
            $this->mustBeAsSeen($order, $changes->version);
            $before = $order->totals()->net;
            $this->want($order, $changes, $problems);
            $this->lines($order, $changes, $problems);
            $site = null === $changes->site ? null : $this->sites->find($changes->site);
            $site ??= $order->sites()[0] ?? $this->sites->all()[0];
            if (null !== $changes->added) {
                $this->add($order, $changes->added, $site, $saved);
            }
            $this->pick($order, $changes->picked, $site, $saved);
            $this->paste($order, $changes->pasted, $site, $saved);
            $this->mend($order->supplier, $changes->mending, $problems);
            if (!$problems->areNone()) {
                throw new Refused(
                    'Some of what was typed cannot be saved; see the marked places. Nothing has been changed yet.',
                );
            }
            $this->note($order, $before, $person);
            $this->entities->flush();
            // The version moves with every save, so that a second person's page is known to be old.
            $connection->executeStatement(
                'UPDATE purchase_order SET version = version + 1 WHERE id = ? AND version = ?',
                [$order->id, $changes->version],
            );
            $this->entities->refresh($order);
            $connection->commit();
        } catch (Refused $refused) {
            $connection->rollBack();
            $problems->refuse('order', $refused->getMessage());
            $this->entities->clear();
        } catch (\Throwable $error) {
            $connection->rollBack();
            throw $error;
        }

        return $saved;
    }

    /** @throws Refused */
    private function mustBeAsSeen(PurchaseOrder $order, int $version): void
    {
        if ($order->version() !== $version) {
            $last = $this->audit->of($order->number, 1)[0] ?? null;
            throw new Refused(
                sprintf(
                    '%s changed this order while you were typing. What stands there now is in grey beside your '
                    .'figures; save again to use yours.',
                    $last?->person?->firstName() ?? 'Somebody',
                ),
            );
        }
    }

    private function note(PurchaseOrder $order, Money $before, Person $person): void
    {
        $now = $order->totals()->net;
        $words = $before->amount->isEqualTo($now->amount)
            ? 'Saved'
            : sprintf(
                'Changed from %s %s to %s %s',
                $before->rounded()->amount,
                $order->currency,
                $now->amount,
                $order->currency,
            );
        $this->audit->note($person, $order->number, $words);
    }

    private function want(PurchaseOrder $order, OrderChanges $changes, Problems $problems): void
    {
        $day = $changes->wantedOn ?? $order->wantedOn();
        if (!Day::isSame($day, $order->wantedOn()) && $day < $this->clock->now()->setTime(0, 0)) {
            $problems->refuse('wanted', sprintf('%s is over; on which day is it wanted?', $day->format('j M Y')));
        }
        $order->change($day, $changes->note);
        if (null !== $changes->adjustments) {
            $order->adjust($changes->adjustments);
        }
        if (null !== $changes->shipping) {
            $order->ship($changes->shipping);
        }
        if (null !== $changes->paidTo) {
            $this->pay($order, $changes->paidTo, $problems);
        }
        if (null !== $changes->tax) {
            $order->taxAs($changes->tax);
        }
    }

    private function pay(PurchaseOrder $order, string $payee, Problems $problems): void
    {
        $suppliers = $this->entities->getRepository(Supplier::class);
        $found = '' === $payee
            ? $order->supplier
            : $suppliers->findOneBy(['code' => $payee]) ?? $suppliers->findOneBy(['name' => $payee]);
        if (null === $found) {
            $problems->refuse('paid_to', sprintf('There is no supplier “%s”; type a code or a name.', $payee));
        } else {
            $order->isPaidTo($found);
        }
    }

    private function lines(PurchaseOrder $order, OrderChanges $changes, Problems $problems): void
    {
        $before = self::followingTheirBreaks($order);
        foreach ($order->lines() as $line) {
            if (in_array($line->id, $changes->removed, true)) {
                $order->remove($line);
                continue;
            }
            $change = $changes->lines[$line->id] ?? null;
            if (null === $change) {
                continue;
            }
            if ($change->packs->isZero()) {
                if ($changes->sweep) {
                    $order->remove($line);
                } else {
                    $problems->refuse('zero', 'Some lines have a quantity of 0.');
                }
                continue;
            }
            $price = self::priceOf($line, $change);
            $problems->apply(
                'quantity-'.$line->id,
                static fn () => $line->change($change->packs, $price, $change->discount),
            );
            $line->wantFor($change->wantedOn);
            $line->taxAs($change->tax);
            if (null !== $change->notes) {
                $line->say(...$change->notes);
            }
            if (null !== $change->aims) {
                $this->aim($line, $change->aims, $problems);
            }
            $this->follow($line, $change, $problems);
            if ('' !== $change->supplierCode) {
                $line->recode($change->supplierCode);
            }
            if (null !== $change->later) {
                $this->shareOut($line, $change->later, $problems);
            }
        }
        self::priceTogether($order, $before);
    }

    /** @return array<int, BigDecimal> the price of lines that come in several deliveries, where it is their offer's */
    private static function followingTheirBreaks(PurchaseOrder $order): array
    {
        $prices = [];
        foreach ($order->isShared() ? $order->lines() : [] as $line) {
            if (true === $line->offer?->prices()->priceFor($line->boughtTogether())->isEqualTo($line->listPrice())) {
                $prices[$line->id] = $line->listPrice();
            }
        }

        return $prices;
    }

    /**
     * What comes in several deliveries has one price, the first line's, and that follows the breaks by all of it.
     *
     * @param array<int, BigDecimal> $before
     */
    private static function priceTogether(PurchaseOrder $order, array $before): void
    {
        foreach ($order->isShared() ? $order->lines() : [] as $line) {
            $first = $line->partOf();
            if (null !== $first) {
                $line->change($line->packs(), $first->listPrice(), $first->discount());
            } elseif (null !== $line->offer && count($line->together()) > 1) {
                $untouched = isset($before[$line->id]) && $before[$line->id]->isEqualTo($line->listPrice());
                $line->change(
                    $line->packs(),
                    $untouched ? $line->offer->prices()->priceFor($line->boughtTogether()) : $line->listPrice(),
                );
            }
        }
    }

    private function shareOut(OrderLine $line, LaterDelivery $later, Problems $problems): void
    {
        $site = null === $later->site ? $line->site : $this->sites->find($later->site) ?? $line->site;
        $day = $later->day ?? $line->wantedOn();
        if ($day < $this->clock->now()->setTime(0, 0)) {
            $problems->refuse('later-'.$line->id, sprintf('%s is over.', $day->format('j M Y')));

            return;
        }
        $problems->attempt(
            'later-'.$line->id,
            static fn (): OrderLine => $line->sharedOut($later->packs, $day, $site),
        );
    }

    private function aim(OrderLine $line, LineAims $aims, Problems $problems): void
    {
        $promise = null === $aims->promise
            ? null
            : $this->entities->find(CustomerPromise::class, $aims->promise);
        if (null !== $promise && !$promise->isOpen() && $promise !== $line->promise()) {
            $problems->refuse('promise-'.$line->id, 'That promise is settled already; choose another.');

            return;
        }
        $problems->apply(
            'promise-'.$line->id,
            static fn () => $line->isFor($promise, $aims->costAccount, $aims->forWhom),
        );
    }

    /** Untouched, the price follows the breaks; typed, it stands. */
    private static function priceOf(OrderLine $line, LineChange $change): BigDecimal
    {
        // What a field shows has four places; a rise or a discount of so many percent may leave more.
        $shown = $line->listPrice()->toScale(4, RoundingMode::HalfUp);
        $typed = $change->price ?? $shown;
        $untouched = $typed->isEqualTo($shown) || $typed->isEqualTo($line->listPrice());

        return match (true) {
            null !== $line->partOf() => $line->listPrice(),
            !$untouched => $typed,
            $change->packs->isEqualTo($line->packs()) => $line->listPrice(),
            default => PutOnOrder::following($line, $change->packs),
        };
    }

    /**
     * Where a price was changed by hand, the standing offer and the standard cost follow only if that was asked for.
     */
    private function follow(OrderLine $line, LineChange $change, Problems $problems): void
    {
        $offer = $line->offer;
        if (null === $offer) {
            return;
        }
        $today = $this->clock->now()->setTime(0, 0);
        if ($change->offerFollows) {
            $prices = $problems->attempt(
                'price-'.$line->id,
                static fn (): PriceBreaks => $offer->listPrices()->withPriceAt(
                    $line->packs(),
                    $offer->listedFor($line->listPrice(), $line->packs()),
                ),
            );
            if (null !== $prices) {
                $this->prices->change($offer, $prices, $today, $today, 'by hand on '.$line->order->number);
                // What was typed is now what they ask, and is decided by whatever decides that.
                $line->change($line->packs(), $line->listPrice());
            }
        }
        if ($change->costFollows && null !== $line->item) {
            $cost = $line->order->rate()->toHome(Money::of($line->price(), $line->order->currency))->amount;
            $line->item->costs(
                $line->item->averageCost(),
                $cost->dividedBy($line->pack()->content, 6, RoundingMode::HalfUp),
            );
        }
    }

    private function add(PurchaseOrder $order, AddedLine $added, Site $site, SavedOrder $saved): void
    {
        $problems = $saved->problems;
        if ($problems->concern('add')) {
            return;
        }
        $offer = $this->wanted->find($order->supplier, $added->words);
        $nobody = null === $offer ? $this->wanted->notOffered($order->supplier, $added->words) : null;
        if (null !== $offer) {
            $packs = $added->packs ?? $offer->rule()->packsFor(1);
            $problems->apply('add', fn () => $this->fromOffer($order, $offer, $site, $packs, $added->price, $saved));
        } elseif (null !== $nobody) {
            $problems->refuse('add', $nobody);
        } elseif (null === $added->price) {
            $problems->refuse(
                'add',
                sprintf(
                    '%s offers nothing called “%s”. To add it as free text, type a price too.',
                    $order->supplier->name(),
                    $added->words,
                ),
            );
        } elseif (false === $added->packs?->isPositive()) {
            $problems->refuse('add', 'Type how many are wanted.');
        } else {
            OrderLine::ofText($order, $added->words, $site, $added->packs ?? BigDecimal::one(), $added->price);
        }
    }

    private function paste(PurchaseOrder $order, ?PastedLines $pasted, Site $site, SavedOrder $saved): void
    {
        $lines = $pasted->lines ?? [];
        $known = [] === $lines
            ? []
            : $this->wanted->findEach(
                $order->supplier,
                array_map(static fn (PastedLine $line): string => $line->code, $lines),
            );
        foreach ($lines as $line) {
            $saved->problems->apply('paste-'.$line->row, function () use ($order, $line, $site, $saved, $known): void {
                $offer =
                    $known[$line->code] ??
                    throw InvalidValue::because(
                        $this->wanted->notOffered($order->supplier, $line->code) ??
                            sprintf('There is no item “%s”.', $line->code),
                    );
                $there = null === $line->site ? $site : $this->sites->byCode($line->site);
                if (null === $there) {
                    throw InvalidValue::because(sprintf('There is no site “%s”.', $line->site));
                }
                $this->fromOffer($order, $offer, $there, $line->packs, $line->price, $saved, $line->day);
            });
        }
    }

    /** @param array<int, BigDecimal> $picked packs by offer */
    private function pick(PurchaseOrder $order, array $picked, Site $site, SavedOrder $saved): void
    {
        foreach ($picked as $id => $packs) {
            $offer = $this->entities->find(Offer::class, $id);
            if ($packs->isPositive() && null !== $offer && $offer->supplier === $order->supplier) {
                $saved->problems->apply(
                    'pick-'.$id,
                    fn () => $this->fromOffer($order, $offer, $site, $packs, null, $saved),
                );
            }
        }
    }

    /** @throws InvalidValue if they do not sell it so */
    private function fromOffer(
        PurchaseOrder $order,
        Offer $offer,
        Site $site,
        BigDecimal $packs,
        ?BigDecimal $price,
        SavedOrder $saved,
        ?\DateTimeImmutable $day = null,
    ): void {
        $put = $this->lines->put($order, $offer, $site, $packs, $price, $day);
        if ($put->raised) {
            $saved->say(
                sprintf(
                    '%s stood on line %s already; it is %s %s now.',
                    $offer->item->code,
                    $put->line->number(),
                    $put->line->packs()->strippedOfTrailingZeros(),
                    $put->line->pack()->named($put->line->packs()),
                ),
            );
        }
    }

    private function mend(Supplier $supplier, SupplierMending $mending, Problems $problems): void
    {
        $contact = $supplier->contact();
        if ('' !== $mending->contact || '' !== $mending->email) {
            $name = '' !== $mending->contact ? $mending->contact : $contact?->name() ?? '';
            $email = '' !== $mending->email ? $mending->email : $contact?->email() ?? '';
            $problems->apply('email', static fn () => $supplier->orderThrough($name, $email, $contact?->phone() ?? ''));
        }
        if ('' !== $mending->street) {
            $problems->apply(
                'country',
                static fn () => $supplier->moveTo(
                    $mending->street,
                    $mending->postcode,
                    $mending->city,
                    $mending->country,
                ),
            );
        }
        if ('' !== $mending->netDays) {
            $problems->apply('net_days', static function () use ($supplier, $mending): void {
                if (1 !== preg_match('/^\d+$/', $mending->netDays)) {
                    throw InvalidValue::notANumber($mending->netDays, 'days until payment is due, such as 30');
                }
                $supplier->agreeTerms(PaymentTerms::net((int) $mending->netDays));
            });
        }
    }
}
