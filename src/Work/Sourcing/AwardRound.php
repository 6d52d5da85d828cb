<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Core\Sourcing\QuoteState;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Offer\OfferPrices;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Quote\QuoteAnswer;
use TallBarrel\Store\Quote\QuoteItem;
use TallBarrel\Store\Quote\Rounds;
use TallBarrel\Store\Site\Site;
use TallBarrel\Work\Keeping\AllOrNothing;
use TallBarrel\Work\Ordering\BeginOrder;

/** Gives a round to one supplier or several. */
final readonly class AwardRound
{
    public function __construct(
        private AllOrNothing $whole,
        private EntityManagerInterface $entities,
        private Rounds $rounds,
        private QuoteLetters $letters,
        private BeginOrder $begin,
        private OfferPrices $prices,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * Drafts an order for each winner at its quoted prices, tells the others, and keeps the winners' prices as offers
     * if
     * asked to.
     *
     * @param array<int, array<int, BigDecimal>> $given stock units by quote and item
     *
     * @return list<PurchaseOrder>
     *
     * @throws InvalidValue|Refused
     */
    public function award(int $id, int $version, array $given, bool $keepAsOffers, Person $person): array
    {
        return $this->whole->take(function () use (
            $id,
            $version,
            $given,
            $keepAsOffers,
            $person,
        ): array {
            $round = $this->rounds->lock($id, $version);
            if (!$round->isOpen()) {
                throw new Refused(
                    sprintf('%s is %s.', $round->number, $round->isSettled() ? 'settled already' : 'not out yet'),
                );
            }
            $now = $this->clock->now();
            $orders = $winners = [];
            foreach ($round->quotes() as $quote) {
                $amounts = array_filter(
                    $given[$quote->id] ?? [],
                    static fn (BigDecimal $units): bool => $units->isPositive(),
                );
                $answer = $quote->standing();
                if ([] === $amounts) {
                    continue;
                }
                if (null === $answer) {
                    throw new Refused(
                        sprintf('%s has not answered; nothing can be awarded to it.', $quote->supplier->name()),
                    );
                }
                $winners[] = $quote;
                $order = $this->begin->blank(
                    $quote->supplier,
                    $person,
                    $round->wantedOn(),
                    sprintf('Awarded in %s', $round->number),
                );
                foreach ($round->items() as $item) {
                    if (isset($amounts[$item->id])) {
                        $this->line($order, $answer, $item, $round->site(), $amounts[$item->id], $keepAsOffers);
                    }
                }
                if (null !== $answer->charges && $answer->charges->isPositive()) {
                    OrderLine::ofText($order, 'Charges as quoted', $round->site(), BigDecimal::one(), $answer->charges);
                }
                $orders[] = $order;
            }
            if ([] === $orders) {
                throw new Refused('Nothing has been given to anybody yet; type a quantity under a supplier.');
            }
            $round->settle($winners, $now);
            $this->audit->note(
                $person,
                $round->number,
                'Awarded: '.
                    implode(
                        ', ',
                        array_map(
                            static fn (PurchaseOrder $order): string => $order->number.' '.$order->supplier->name(),
                            $orders,
                        ),
                    ),
            );
            $this->entities->flush();
            foreach ($round->quotes() as $quote) {
                if (QuoteState::Lost === $quote->state() && [] !== $quote->answers()) {
                    $this->letters->tellLost($quote, $person);
                }
            }

            return $orders;
        });
    }

    private function line(
        PurchaseOrder $order,
        QuoteAnswer $answer,
        QuoteItem $item,
        Site $site,
        BigDecimal $units,
        bool $keepAsOffer,
    ): void {
        $quoted =
            $answer->line($item) ??
            throw new Refused(sprintf('%s did not quote %s.', $answer->quote->supplier->name(), $item->description));
        $prices = $answer->prices($item) ?? throw new \LogicException('A quoted line has prices.');
        if (null !== $quoted['most'] && $units->isGreaterThan($quoted['most'])) {
            throw InvalidValue::because(
                sprintf(
                    '%s can supply at most %s of %s; %s were given to it.',
                    $answer->quote->supplier->name(),
                    $quoted['most'],
                    $item->description,
                    $units,
                ),
            );
        }
        if (null !== $quoted['multiple'] && !$units->remainder(BigDecimal::of($quoted['multiple']))->isZero()) {
            throw InvalidValue::because(
                sprintf(
                    '%s sells %s in steps of %s; %s is not one.',
                    $answer->quote->supplier->name(),
                    $item->description,
                    $quoted['multiple'],
                    $units,
                ),
            );
        }
        if (null === $item->item) {
            OrderLine::ofText(
                $order,
                '' === $quoted['alternate']
                    ? $item->description
                    : mb_substr($quoted['alternate'].' for '.$item->description, 0, 200),
                $site,
                $units,
                $prices->priceFor($units),
            );

            return;
        }
        $known = $this->entities
            ->getRepository(Offer::class)
            ->findBy(['supplier' => $answer->quote->supplier, 'item' => $item->item], ['rank' => 'ASC']);
        $code = '' !== $quoted['code'] ? $quoted['code'] : (isset($known[0]) ? $known[0]->supplierCode() : '');
        OrderLine::ofItem($order, $item->item, $code, $site, $units, $prices->priceFor($units));
        if ($keepAsOffer) {
            $this->keep($answer, $item, $known, $code, $prices);
        }
    }

    /** @param list<Offer> $known */
    private function keep(QuoteAnswer $answer, QuoteItem $item, array $known, string $code, PriceBreaks $prices): void
    {
        $today = $this->clock->now()->setTime(0, 0);
        $single =
            array_values(
                array_filter($known, static fn (Offer $offer): bool => 'each' === $offer->packName),
            )[0] ?? null;
        if (null === $single && null !== $item->item) {
            $single = new Offer($answer->quote->supplier, $item->item, $code, 'each', BigDecimal::one());
            $single->price($prices);
            $this->entities->persist($single);
        } elseif (null !== $single) {
            $this->prices->change($single, $prices, $today, $today, 'quote '.$answer->quote->round->number);
        }
        $single?->promise($answer->leadDays, isset($known[0]) ? $known[0]->rank() : 2, $answer->validUntil);
    }
}
