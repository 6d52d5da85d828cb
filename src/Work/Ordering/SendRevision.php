<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Money\PriceDiscount;
use TallBarrel\Core\Ordering\LineWish;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Order\Amendments;
use TallBarrel\Store\Order\OrderAmendment;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Sites;

/**
 * Puts a revision in force and sends it: the order changes, every document is kept as it goes out, and the supplier has
 * to confirm anew; together or not at all.
 */
final readonly class SendRevision
{
    public function __construct(
        private EntityManagerInterface $entities,
        private OrderStep $step,
        private Amendments $amendments,
        private PutInForce $force,
        private KeepDocuments $documents,
        private OrderLetter $letter,
        private Sites $sites,
        private Audit $audit,
    ) {
    }

    /** @throws Refused if somebody with a higher limit has to, goods stand at the dock, or nothing changes */
    public function send(SeenOrder $seen, int $version, Person $person): PurchaseOrder
    {
        return $this->step->take($seen, function (PurchaseOrder $order) use ($version, $person): void {
            $amendment = $this->seen($order, $version);
            $this->mustNotStandAtTheDock($order);
            $change = $this->force->revise(
                $order,
                $person,
                fn () => $this->change($order, $amendment),
                $amendment->by(),
            );
            if ($change->isNone()) {
                throw new Refused('Nothing is different from what was sent.');
            }
            $this->entities->remove($amendment);
            $this->entities->flush();
            $contact = $order->supplier->contact();
            $this->audit->note(
                $person,
                $order->number,
                sprintf('Revision %d sent to %s', $order->revision(), $contact?->email() ?? ''),
            );
            $this->letter->revised($order, $person, $this->documents->of($order, $change), $change);
        });
    }

    /** Asks somebody with a higher limit to send it. */
    public function askForYes(SeenOrder $seen, int $version, Person $person): PurchaseOrder
    {
        return $this->step->take($seen, function (PurchaseOrder $order) use ($version, $person): void {
            $this->seen($order, $version)->awaitYes();
            $this->audit->note(
                $person,
                $order->number,
                sprintf('Asked for approval of revision %d', $order->revision() + 1),
            );
        });
    }

    /** @throws Refused */
    private function seen(PurchaseOrder $order, int $version): OrderAmendment
    {
        $amendment = $this->amendments->of($order) ?? throw new Refused('That revision is gone.');
        if ($amendment->version() !== $version || $amendment->revision !== $order->revision()) {
            throw new Refused(
                sprintf('Somebody changed the revision of %s meanwhile. Look at it once more.', $order->number),
            );
        }

        return $amendment;
    }

    private function change(PurchaseOrder $order, OrderAmendment $amendment): void
    {
        $order->change($amendment->wantedOn(), $amendment->note());
        $lines = [];
        foreach ($order->lines() as $line) {
            $lines[$line->id] = $line;
        }
        foreach ($amendment->wishes() as $wish) {
            $line = null === $wish->line ? $this->add($order, $wish) : $lines[$wish->line] ?? null;
            if (null !== $line) {
                // Prices of a revision are after the discount: one that was left alone keeps its own.
                $asWas = $wish->price->isEqualTo($line->price());
                $line->change(
                    $wish->packs,
                    $asWas ? $line->listPrice() : $wish->price,
                    $asWas ? null : PriceDiscount::none(),
                );
                $line->wantFor($wish->day);
            }
        }
        // Last: what new lines bring along was shown with them, and may have been struck out.
        $order->adjust($amendment->adjustments());
    }

    private function add(PurchaseOrder $order, LineWish $wish): OrderLine
    {
        $site = $this->sites->find($wish->site) ?? $order->sites()[0];
        $offer = null === $wish->offer ? null : $this->entities->find(Offer::class, $wish->offer);

        return null === $offer
            ? OrderLine::ofText($order, $wish->text, $site, $wish->packs, $wish->price)
            : OrderLine::fromOffer($order, $offer, $site, $wish->packs);
    }

    /** @throws Refused while some of it is being counted */
    private function mustNotStandAtTheDock(PurchaseOrder $order): void
    {
        $counting = $this->entities->getConnection()->fetchOne(
            'SELECT 1 FROM delivery d JOIN delivery_line dl ON dl.delivery_id = d.id
                JOIN order_line l ON l.id = dl.line_id WHERE l.order_id = ? AND d.booked_at IS NULL LIMIT 1',
            [$order->id],
        );
        if (false !== $counting) {
            throw new Refused(
                sprintf('Goods of %s stand at the dock and are being counted; book them first.', $order->number),
            );
        }
    }
}
