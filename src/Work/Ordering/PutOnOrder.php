<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Brick\Math\BigDecimal;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Day;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Agreement\Agreements;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Site\Site;

/** Puts what an offer sells onto a draft; what stands there for the same place and day already is raised. */
final readonly class PutOnOrder
{
    public function __construct(
        private OfferWanted $wanted,
        private Agreements $agreements,
        private ClockInterface $clock,
    ) {
    }

    /**
     * Inside the caller's transaction.
     *
     * @param BigDecimal|null         $price of one pack; null for theirs at that quantity
     * @param \DateTimeImmutable|null $day   null for the order's
     *
     * @throws InvalidValue if they do not sell it so
     */
    public function put(
        PurchaseOrder $order,
        Offer $offer,
        Site $site,
        BigDecimal $packs,
        ?BigDecimal $price = null,
        ?\DateTimeImmutable $day = null,
    ): PutLine {
        $this->wanted->mustBeSold($offer, $packs);
        foreach ($order->lines() as $line) {
            $sameDay = null === $day || Day::isSame($day, $line->wantedOn());
            if ($line->offer === $offer && $line->site === $site && $sameDay) {
                $sum = $line->packs()->plus($packs);
                $line->change($sum, $price ?? self::following($line, $sum));

                return new PutLine($line, true);
            }
        }
        $line = OrderLine::fromOffer($order, $offer, $site, $packs);
        $this->agreements->attach($line, $this->clock->now());
        $line->wantFor($day);
        if (null !== $price) {
            $line->change($packs, $price);
        }

        return new PutLine($line, false);
    }

    /** The line's price at another quantity: it follows their breaks where it did before. */
    public static function following(OrderLine $line, BigDecimal $packs): BigDecimal
    {
        $breaks = $line->offer?->prices();
        $before = $line->boughtTogether();

        return null !== $breaks && $line->listPrice()->isEqualTo($breaks->priceFor($before))
            ? $breaks->priceFor($before->minus($line->packs())->plus($packs))
            : $line->listPrice();
    }
}
