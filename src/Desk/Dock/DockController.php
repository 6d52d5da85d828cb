<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Dock;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Day;
use TallBarrel\Core\Receiving\CountFinding;
use TallBarrel\Core\Receiving\LotFacts;
use TallBarrel\Core\Receiving\SerialNumbers;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Desk\Talk\Talk;
use TallBarrel\Store\Business\ReasonKind;
use TallBarrel\Store\Business\Reasons;
use TallBarrel\Store\Dock\Attachments;
use TallBarrel\Store\Dock\Delivery;
use TallBarrel\Store\Dock\DeliveryLine;
use TallBarrel\Store\Dock\Receipts;
use TallBarrel\Store\Dock\SupplierReturns;
use TallBarrel\Store\Dock\WhatWaits;
use TallBarrel\Store\Order\Despatches;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Work\Receiving\BookDelivery;
use TallBarrel\Work\Receiving\CountDelivery;
use TallBarrel\Work\Receiving\DiscardDelivery;
use TallBarrel\Work\Receiving\DockPaper;
use TallBarrel\Work\Receiving\LineCount;
use TallBarrel\Work\Receiving\Scan;
use TallBarrel\Work\Receiving\StartDelivery;
use TallBarrel\Work\Receiving\TakeBackReceipt;

#[Route('/dock')]
final class DockController extends AbstractController
{
    /** The fields of a line, in the order in which the page says what they were. */
    private const PARTS = ['counted', 'lot', 'expires', 'made', 'origin', 'serials', 'bad', 'because', 'rest'];

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Orders $orders,
        private readonly DockBoard $board,
        private readonly Shell $shell,
        private readonly Talk $talk,
        private readonly SupplierReturns $returns,
        private readonly Receipts $receipts,
        private readonly Attachments $attachments,
        private readonly Despatches $despatches,
        private readonly WhatWaits $waits,
        private readonly Reasons $reasons,
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
    public function begin(Request $request, Sites $sites, StartDelivery $start): Response
    {
        $fields = Fields::of($request);
        $orders = array_keys($fields->each('orders'));
        $delivery = $start->start(
            $orders,
            $sites->find((int) $fields->text('site')),
            $fields->text('note', 40),
            '' !== $fields->text('elsewhere', 1),
            $fields->problems,
            $this->despatches->find((int) $fields->text('advised', 9)),
        );

        return null === $delivery
            ? $this->start($fields->text('order'), $fields)
            : $this->redirectToRoute('delivery', ['id' => $delivery->id]);
    }

    #[Route('/deliveries/{id}', name: 'delivery', requirements: ['id' => '\d+'], methods: ['GET'])]
    public function delivery(int $id, Request $request): Response
    {
        return $this->count($this->find($id), Fields::none(), $request->query->getBoolean('blind'));
    }

    /** Saves the count; with another button, counts all as ordered, takes a scan, or books in. */
    #[Route('/deliveries/{id}', name: 'delivery_save', requirements: ['id' => '\d+'], methods: ['POST']),
        IsGranted('ROLE_RECEIVE'),]
    public function save(
        int $id,
        Request $request,
        CountDelivery $count,
        BookDelivery $book,
        #[CurrentUser] Person $person,
    ): Response {
        $fields = Fields::of($request);
        $delivery = $this->find($id);
        $blind = '1' === $fields->text('blind');
        if ($delivery->isBooked()) {
            return $this->redirectToRoute('delivery', ['id' => $id]);
        }
        $read = $count->count(
            $delivery,
            $this->counts($delivery, $fields),
            'all' === $fields->text('do'),
            $this->scan($fields),
            $fields->problems,
            '' === $fields->text('another', 12) ? null : (int) $fields->text('another'),
        );
        if (!$fields->isGood()) {
            return $this->count($delivery, $fields, $blind);
        }
        if (null !== $read) {
            $this->addFlash('fine', $read);
        }
        if ('book' === $fields->text('do')) {
            try {
                $this->addFlash(
                    'fine',
                    sprintf('Booked in as %s. Stock and cost have moved.', $book->book($id, $person)->number),
                );
            } catch (Refused $refused) {
                $this->addFlash('short', $refused->getMessage());
            }
        }

        return $this->redirectToRoute('delivery', ['id' => $id] + ($blind ? ['blind' => 1] : []));
    }

    #[Route('/deliveries/{id}/discard', name: 'delivery_discard', requirements: ['id' => '\d+'], methods: ['POST']),
        IsGranted('ROLE_RECEIVE'),]
    public function discard(int $id, DiscardDelivery $discard): Response
    {
        $discard->discard($this->find($id));
        $this->addFlash('fine', 'The count is given up; the orders are expected again.');

        return $this->redirectToRoute('dock');
    }

    /** To count with a pencil. */
    #[Route('/deliveries/{id}/counting.pdf', name: 'counting_sheet', requirements: ['id' => '\d+'], methods: ['GET'])]
    public function sheet(int $id, Request $request, DockPaper $paper): Response
    {
        $bytes = $paper->countingSheet($this->find($id), $request->query->getBoolean('blind'));

        return new Response($bytes, 200, ['Content-Type' => 'application/pdf']);
    }

    /** What was booked in, on paper. */
    #[Route('/deliveries/{id}/receipt.pdf', name: 'receipt_paper', requirements: ['id' => '\d+'], methods: ['GET'])]
    public function paper(int $id, DockPaper $paper): Response
    {
        $receipt = $this->receipts->of($this->find($id))
            ?? throw $this->createNotFoundException('Nothing of this delivery is booked in.');

        return new Response($paper->receipt($receipt), 200, ['Content-Type' => 'application/pdf']);
    }

    /** What was booked in by mistake. */
    #[Route('/deliveries/{id}/take-back', name: 'receipt_back', requirements: ['id' => '\d+'], methods: ['POST']),
        IsGranted('ROLE_RECEIVE'),]
    public function takeBack(int $id, Request $request, TakeBackReceipt $undo, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $receipt = $this->receipts->of($this->find($id))
            ?? throw $this->createNotFoundException('Nothing of this delivery is booked in.');
        try {
            $back = $undo->takeBack($receipt, array_keys($fields->each('back')), $fields->text('why', 200), $person);
            $this->addFlash('fine', sprintf('Taken back as %s; stock, cost and order are as before.', $back->number));
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
            $this->addFlash('why', $fields->text('why', 200));
        }

        return $this->redirectToRoute('delivery', ['id' => $id]);
    }

    /** What was typed of a lot; null where nothing was asked, or it cannot be so. */
    private function lot(DeliveryLine $line, Fields $fields): ?LotFacts
    {
        $id = $line->id;
        [$lots, $expiries, $made, $origins] = array_map($fields->each(...), ['lot', 'expires', 'made', 'origin']);

        return !isset($lots[$id]) ? null : $fields->attempt('lot-'.$id, fn (): LotFacts => LotFacts::of(
            $lots[$id],
            '' === ($expiries[$id] ?? '') ? null : Day::read($expiries[$id]),
            '' === ($made[$id] ?? '') ? null : Day::read($made[$id]),
            $origins[$id] ?? '',
            $line->line->item?->shelfDays(),
            $this->clock->now(),
        ));
    }

    /**
     * Two people count one delivery: only what somebody changed on their page is taken, and not over a colleague's.
     * Sent once more, it is.
     */
    private function isChanged(DeliveryLine $line, Fields $fields): bool
    {
        $id = $line->id;
        [$was, $version] = [$fields->each('was')[$id] ?? null, $fields->each('line_version')[$id] ?? null];
        $typed = array_map(
            static fn (string $part): string => str_replace("\r\n", "\n", $fields->each($part)[$id] ?? ''),
            self::PARTS,
        );
        if (null !== $was && str_replace("\r\n", "\n", $was) === implode('|', $typed)) {
            return false;
        }
        if (null !== $version && (int) $version !== $line->version()) {
            $fields->refuse('counted-'.$id, sprintf(
                'Somebody changed this line meanwhile: %s counted%s. Save again to use yours.',
                $line->counted()?->strippedOfTrailingZeros() ?? 'none',
                '' === $line->lot() ? '' : ', lot '.$line->lot(),
            ));

            return false;
        }

        return true;
    }

    /** @return array<int, LineCount> by line; those that nobody changed are left out */
    private function counts(Delivery $delivery, Fields $fields): array
    {
        [$counts, $keeps, $serials, $bad, $because] = array_map(
            $fields->each(...),
            ['counted', 'rest', 'serials', 'bad', 'because'],
        );
        $read = [];
        foreach ($delivery->lines() as $line) {
            $id = $line->id;
            if (!$this->isChanged($line, $fields)) {
                continue;
            }
            $packs = $fields->quantity('counted-'.$id, $counts[$id] ?? '');
            $read[$id] = new LineCount(
                isset($counts[$id]) && !$fields->problems->concern('counted-'.$id),
                $packs,
                isset($keeps[$id]) ? 'close' !== $keeps[$id] : null,
                $this->lot($line, $fields),
                !isset($serials[$id]) ? null : $fields->attempt(
                    'serials-'.$id,
                    static fn (): array => SerialNumbers::read($serials[$id]),
                ),
                !isset($bad[$id]) ? null : $fields->quantity('bad-'.$id, $bad[$id]) ?? BigDecimal::zero(),
                $because[$id] ?? '',
            );
        }

        return $read;
    }

    /** "CODE" or "CODE 12". */
    private function scan(Fields $fields): ?Scan
    {
        $words = preg_split('/\s+/', $fields->text('scan'), -1, \PREG_SPLIT_NO_EMPTY) ?: [];
        $packs = $fields->quantity('scan', $words[1] ?? '');

        return [] === $words || $fields->problems->concern('scan') ? null : new Scan(
            $words[0],
            $packs,
            $fields->text('scan_key', 60),
        );
    }

    private function start(string $number, Fields $fields): Response
    {
        $order = '' === $number ? null : $this->orders->byNumber($number);
        $site = $this->shell->site();
        $open =
            null === $order
                ? []
                : array_values(
                    array_filter(
                        $this->orders->open(),
                        static fn (PurchaseOrder $other): bool => $other->supplier === $order->supplier,
                    ),
                );

        return $this->render(
            'dock/dock.html.twig',
            [
                'expected' => $this->board->expected($site),
                'chosen' => $order,
                'orders' => $open,
                'despatches' => $this->despatches->expected(...$open),
                'site' => $site ?? (null !== $order ? $this->board->likelySite($order) : null),
                'fields' => $fields,
                'delivery' => null,
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    private function count(Delivery $delivery, Fields $fields, bool $blind): Response
    {
        $lines = $delivery->lines();
        $counted = array_filter($lines, static fn (DeliveryLine $line): bool => null !== $line->counted());

        $receipt = $this->receipts->of($delivery);

        return $this->render(
            'dock/dock.html.twig',
            [
                'expected' => $this->board->expected($this->shell->site()),
                'chosen' => null,
                'delivery' => $delivery,
                'fields' => $fields,
                'blind' => $blind,
                'counted' => count($counted),
                'short' => count(
                    array_filter(
                        $counted,
                        static fn (DeliveryLine $line): bool => CountFinding::Short === $line->finding()->finding,
                    ),
                ),
                'lands' => $this->board->value($delivery),
                'bins' => $this->board->bins($delivery),
                'reasons' => $this->reasons->words(ReasonKind::GoodsBack),
                'receipt' => $receipt,
                'takenBack' => null === $receipt ? [] : $this->receipts->takenBack($receipt),
                'returns' => null === $receipt ? [] : $this->returns->of($receipt),
                'talk' => $this->talk->about('delivery', $delivery->id),
                'waits' => null === $receipt ? [] : $this->waits->for($receipt),
                'attachments' => $this->attachments->of($delivery),
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    private function find(int $id): Delivery
    {
        return $this->entities->find(Delivery::class, $id) ??
            throw $this->createNotFoundException('There is no such delivery.');
    }
}
