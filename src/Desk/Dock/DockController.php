<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Dock;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Quantity;
use TallBarrel\Core\Receiving\Finding;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Reorder\Planner;
use TallBarrel\Desk\Shell\AfterResponse;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Store\Dock\Booking;
use TallBarrel\Store\Dock\Delivery;
use TallBarrel\Store\Dock\DeliveryLine;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Sites;

#[Route('/dock')]
final class DockController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Orders $orders,
        private readonly DockBoard $board,
        private readonly Shell $shell,
        private readonly ClockInterface $clock,
    ) {
    }

    /** What is expected; with an order chosen, the form that starts its delivery. */
    #[Route('', name: 'dock', methods: ['GET'])]
    public function expected(Request $request): Response
    {
        return $this->start($request->query->getString('order'), Fields::none());
    }

    #[Route('/deliveries', name: 'delivery_start', methods: ['POST']), IsGranted('ROLE_RECEIVE')]
    public function begin(Request $request, Sites $sites): Response
    {
        $fields = Fields::of($request);
        $note = $fields->text('note', 40);
        $site = $sites->find((int) $fields->text('site'));
        $chosen = array_filter($this->orders->open(), static fn (PurchaseOrder $order): bool => isset($fields->each('orders')[$order->id]));
        $lines = [];
        foreach ($chosen as $order) {
            foreach ($order->lines() as $line) {
                if ($line->site === $site && $line->outstanding()->isPositive()) {
                    $lines[] = $line;
                }
            }
        }
        if ('' === $note) {
            $fields->refuse('note', 'The number on the delivery note is needed; type “none” if there is no paper.');
        }
        if ([] === $lines) {
            $fields->refuse('orders', sprintf('Nothing of these orders is still to come to %s.', $site->name ?? 'that site'));
        }
        if (!$fields->isGood() || null === $site) {
            return $this->start($fields->text('order'), $fields);
        }
        // The same note pressed twice, or begun by a colleague, is the same delivery.
        $begun = $this->entities->getRepository(Delivery::class)->findOneBy(['supplier' => $lines[0]->order->supplier, 'site' => $site, 'noteNumber' => $note, 'bookedAt' => null]);
        if (null !== $begun) {
            return $this->redirectToRoute('delivery', ['id' => $begun->id]);
        }
        $delivery = new Delivery($lines[0]->order->supplier, $site, $note, $this->clock->now());
        foreach ($lines as $line) {
            $delivery->expect($line);
        }
        $this->entities->persist($delivery);
        $this->entities->flush();

        return $this->redirectToRoute('delivery', ['id' => $delivery->id]);
    }

    #[Route('/deliveries/{id}', name: 'delivery', requirements: ['id' => '\d+'], methods: ['GET'])]
    public function delivery(int $id, Request $request): Response
    {
        return $this->count($this->find($id), Fields::none(), $request->query->getBoolean('blind'));
    }

    /** Saves the count; with another button, counts all as ordered, takes a scan, or books in. */
    #[Route('/deliveries/{id}', name: 'delivery_save', requirements: ['id' => '\d+'], methods: ['POST']), IsGranted('ROLE_RECEIVE')]
    public function save(int $id, Request $request, Booking $booking, Planner $planner, AfterResponse $after, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $delivery = $this->find($id);
        $do = $fields->text('do');
        $blind = '1' === $fields->text('blind');
        if ($delivery->isBooked()) {
            return $this->redirectToRoute('delivery', ['id' => $id]);
        }
        $scanned = null;
        $this->entities->wrapInTransaction(function () use ($delivery, $fields, $do, &$scanned): void {
            $this->entities->lock($delivery, LockMode::PESSIMISTIC_WRITE);
            $this->apply($delivery, $fields);
            if ('all' === $do) {
                foreach ($delivery->lines() as $line) {
                    if (null === $line->counted()) {
                        $line->count($line->expected());
                    }
                }
            }
            if ('' !== $fields->text('scan')) {
                $scanned = $this->scan($delivery, $fields);
            }
        });
        if (!$fields->isGood()) {
            return $this->count($delivery, $fields, $blind);
        }
        if (null !== $scanned) {
            $this->addFlash('fine', $scanned);
        }
        if ('book' === $do) {
            try {
                $receipt = $booking->book($id, $person);
                $items = array_values(array_unique(array_filter(array_map(static fn (DeliveryLine $line): ?int => $line->line->item?->id, $delivery->lines()))));
                $after->do(static fn () => $planner->replan($items));
                $this->addFlash('fine', sprintf('Booked in as %s. Stock and cost have moved.', $receipt->number));
            } catch (Refused $refused) {
                $this->addFlash('short', $refused->getMessage());
            }
        }

        return $this->redirectToRoute('delivery', ['id' => $id] + ($blind ? ['blind' => 1] : []));
    }

    /** Gives up a count that was begun by mistake; nothing has been booked from it. */
    #[Route('/deliveries/{id}/discard', name: 'delivery_discard', requirements: ['id' => '\d+'], methods: ['POST']), IsGranted('ROLE_RECEIVE')]
    public function discard(int $id): Response
    {
        $this->entities->wrapInTransaction(function () use ($id): void {
            $delivery = $this->find($id);
            $this->entities->lock($delivery, LockMode::PESSIMISTIC_WRITE);
            $this->entities->refresh($delivery);
            $delivery->mustBeOpen();
            $this->entities->remove($delivery);
        });
        $this->addFlash('fine', 'The count is given up; the orders are expected again.');

        return $this->redirectToRoute('dock');
    }

    private function apply(Delivery $delivery, Fields $fields): void
    {
        [$counts, $keeps, $lots, $expiries] = [$fields->each('counted'), $fields->each('rest'), $fields->each('lot'), $fields->each('expires')];
        foreach ($delivery->lines() as $line) {
            if (isset($counts[$line->id])) {
                $fields->apply('counted-'.$line->id, static fn () => $line->count('' === $counts[$line->id] ? null : Quantity::read($counts[$line->id])));
            }
            if (isset($keeps[$line->id])) {
                $line->keepRest('close' !== $keeps[$line->id]);
            }
            if (isset($lots[$line->id])) {
                $line->inLot(mb_substr($lots[$line->id], 0, 40), $fields->day('expires-'.$line->id, $expiries[$line->id] ?? ''));
            }
        }
    }

    /** "CODE" adds one pack, "CODE 12" sets the count; a GTIN or our code or theirs. */
    private function scan(Delivery $delivery, Fields $fields): ?string
    {
        $typed = $fields->text('scan');
        $words = preg_split('/\s+/', $typed) ?: [$typed];
        $line = $this->board->lineFor($delivery, $words[0]);
        if (null === $line) {
            $fields->refuse('scan', sprintf('“%s” is on none of these orders. Check the code, or start a delivery with the order it belongs to.', $words[0]));

            return null;
        }

        return $fields->attempt('scan', static function () use ($line, $words): string {
            $packs = isset($words[1]) ? Quantity::read($words[1]) : ($line->counted() ?? BigDecimal::zero())->plus(1);
            $line->count($packs);
            if (Finding::TooMuch === $line->finding()->finding) {
                throw InvalidValue::because(sprintf('%s: that makes %s, more than was ordered. Set the rest aside.', $line->line->description, $packs));
            }

            return sprintf('Read: %s, now %s %s.', $line->line->description, $packs, $line->line->packName);
        });
    }

    private function start(string $number, Fields $fields): Response
    {
        $order = '' === $number ? null : $this->orders->byNumber($number);
        $site = $this->shell->site();
        $open = null === $order ? [] : array_values(array_filter($this->orders->open(), static fn (PurchaseOrder $other): bool => $other->supplier === $order->supplier));

        return $this->render('dock/dock.html.twig', [
            'expected' => $this->board->expected($site),
            'chosen' => $order,
            'orders' => $open,
            'site' => $site ?? (null !== $order ? $this->board->likelySite($order) : null),
            'fields' => $fields,
            'delivery' => null,
        ], new Response(status: $fields->isGood() ? 200 : 422));
    }

    private function count(Delivery $delivery, Fields $fields, bool $blind): Response
    {
        $lines = $delivery->lines();
        $counted = array_filter($lines, static fn (DeliveryLine $line): bool => null !== $line->counted());

        return $this->render('dock/dock.html.twig', [
            'expected' => $this->board->expected($this->shell->site()),
            'chosen' => null,
            'delivery' => $delivery,
            'fields' => $fields,
            'blind' => $blind,
            'counted' => count($counted),
            'short' => count(array_filter($counted, static fn (DeliveryLine $line): bool => Finding::Short === $line->finding()->finding)),
            'lands' => $this->board->value($delivery),
            'bins' => $this->board->bins($delivery),
            'receipt' => $this->board->receipt($delivery),
        ], new Response(status: $fields->isGood() ? 200 : 422));
    }

    private function find(int $id): Delivery
    {
        return $this->entities->find(Delivery::class, $id) ?? throw $this->createNotFoundException('There is no such delivery.');
    }
}
