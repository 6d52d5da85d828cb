<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Dock;

use Brick\Math\BigDecimal;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Receiving\TransferCount;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\SeenSites;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Store\Dock\Transfer;
use TallBarrel\Store\Dock\TransferLine;
use TallBarrel\Store\Dock\Transfers;
use TallBarrel\Store\Item\CalledItem;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Store\Stock\PickingPlaces;
use TallBarrel\Work\Receiving\AskForStock;
use TallBarrel\Work\Receiving\DockPaper;
use TallBarrel\Work\Receiving\ReceiveTransfer;
use TallBarrel\Work\Receiving\SendTransfer;

/** Goods from one of our sites to another: asked for, picked, on their way, counted where they came. */
final class TransfersController extends AbstractController
{
    public function __construct(
        private readonly Transfers $transfers,
        private readonly Sites $sites,
        private readonly SeenSites $seen,
        private readonly Shell $shell,
        private readonly PickingPlaces $places,
    ) {
    }

    #[Route('/dock/transfers', name: 'transfers', methods: ['GET'])]
    public function list(Request $request): Response
    {
        return $this->page(Fields::query($request));
    }

    #[Route('/transfer', name: 'transfer', methods: ['POST']), IsGranted('ROLE_RECEIVE')]
    public function ask(Request $request, AskForStock $ask, CalledItem $items, #[CurrentUser] Person $by): Response
    {
        $fields = Fields::of($request);
        $line = null;
        $item = $fields->attempt('item', static fn (): Item => $items->of($fields->text('item')));
        $from = $this->site($fields, 'from');
        $to = $this->site($fields, 'to');
        $units = $fields->quantity('quantity', $fields->text('quantity', 30));
        if (null === $units && !isset($fields->errors()['quantity'])) {
            $fields->refuse('quantity', 'Say how many.');
        }
        if ($fields->isGood() && null !== $item && null !== $from && null !== $to && null !== $units) {
            $key = 'transfer-'.($fields->text('key', 45) ?: bin2hex(random_bytes(8)));
            try {
                $line = $fields->attempt(
                    'quantity',
                    static fn (): ?TransferLine => $ask->ask($item, $from, $to, $units, $by, $key),
                );
            } catch (Refused $refused) {
                $fields->refuse('quantity', $refused->getMessage());
            }
        }
        $back = 'reorder' === $fields->text('back');
        if (!$fields->isGood()) {
            if (!$back) {
                return $this->page($fields);
            }
            $this->addFlash('short', implode(' ', $fields->errors()));

            return $this->redirectToRoute('reorder');
        }
        $this->addFlash('fine', null === $line ? 'That was asked for already.' : sprintf(
            '%s: %s %s of %s stand on the list from %s to %s.',
            $line->transfer->number,
            $line->wanted()->strippedOfTrailingZeros(),
            $line->item->unit->symbol(),
            $line->item->code,
            $line->transfer->source->name(),
            $line->transfer->target->name(),
        ));

        return $back || null === $line
            ? $this->redirectToRoute($back ? 'reorder' : 'transfers')
            : $this->redirectToRoute('transfer_show', ['number' => $line->transfer->number]);
    }

    #[Route('/dock/transfers/{number}', name: 'transfer_show', methods: ['GET'])]
    public function show(string $number): Response
    {
        return $this->one($this->find($number), Fields::none());
    }

    #[Route('/dock/transfers/{number}/paper', name: 'transfer_paper', methods: ['GET'])]
    public function paper(string $number, DockPaper $paper): Response
    {
        $transfer = $this->find($number);

        return new Response($paper->transfer($transfer, $this->places->of($transfer)), headers: [
            'Content-Type' => 'application/pdf',
            'Content-Disposition' => sprintf('inline; filename="%s.pdf"', $transfer->number),
        ]);
    }

    #[Route('/dock/transfers/{number}', name: 'transfer_act', methods: ['POST']), IsGranted('ROLE_RECEIVE')]
    public function act(
        string $number,
        Request $request,
        AskForStock $ask,
        SendTransfer $send,
        ReceiveTransfer $receive,
        #[CurrentUser] Person $by,
    ): Response {
        $transfer = $this->find($number);
        $fields = Fields::of($request);
        $do = $fields->text('do');
        $this->mustWorkAt('receive' === $do ? $transfer->target : $transfer->source);
        $picked = $this->quantities($fields, 'picked');
        $lots = $fields->each('lot');
        $arrivals = 'receive' === $do ? $this->arrivals($transfer, $fields) : [];
        if ($fields->isGood()) {
            try {
                match ($do) {
                    'send' => $send->send($transfer, $picked, $lots, $by, $fields->problems),
                    'receive' => $receive->receive($transfer, $arrivals, $by, $fields->problems),
                    default => $ask->drop($transfer, $by),
                };
            } catch (Refused $refused) {
                $fields->refuse('do', $refused->getMessage());
            }
        }
        if (!$fields->isGood()) {
            return $this->one($this->find($number), $fields);
        }
        $this->addFlash('fine', match ($do) {
            'send' => sprintf('%s is on its way to %s.', $number, $transfer->target->name()),
            'receive' => sprintf('%s is booked in at %s.', $number, $transfer->target->name()),
            default => sprintf('%s is given up; everything stays where it is.', $number),
        });

        return $this->redirectToRoute('transfer_show', ['number' => $number]);
    }

    /** @return array<int, TransferCount> by line */
    private function arrivals(Transfer $transfer, Fields $fields): array
    {
        $came = $this->quantities($fields, 'came');
        $bad = $this->quantities($fields, 'bad');
        [$why, $rest] = [$fields->each('why'), $fields->each('rest')];
        $arrivals = [];
        foreach ($transfer->lines() as $line) {
            $sent = $line->sent();
            if (null === $sent || !isset($came[$line->id])) {
                continue;
            }
            try {
                $arrivals[$line->id] = new TransferCount(
                    $sent,
                    $came[$line->id],
                    $bad[$line->id] ?? BigDecimal::zero(),
                    mb_substr($why[$line->id] ?? '', 0, 100),
                    'lost' === ($rest[$line->id] ?? ''),
                );
            } catch (InvalidValue $problem) {
                $fields->refuse('came-'.$line->id, $problem->getMessage());
            }
        }

        return $arrivals;
    }

    /** @return array<int, BigDecimal> */
    private function quantities(Fields $fields, string $name): array
    {
        $read = [];
        foreach ($fields->each($name) as $line => $typed) {
            $units = $fields->quantity($name.'-'.$line, $typed);
            if (null !== $units) {
                $read[$line] = $units;
            }
        }

        return $read;
    }

    private function site(Fields $fields, string $name): ?Site
    {
        $site = $this->sites->find((int) $fields->text($name));
        if (null === $site) {
            $fields->refuse($name, 'Choose a site.');
        }

        return $site;
    }

    private function find(string $number): Transfer
    {
        $transfer = $this->transfers->byNumber($number)
            ?? throw $this->createNotFoundException(sprintf('Nothing goes as %s.', $number));
        $this->seen->mustHave($transfer->source->id, $transfer->target->id);

        return $transfer;
    }

    private function isSeen(Transfer $transfer): bool
    {
        return $this->seen->has($transfer->source->id) || $this->seen->has($transfer->target->id);
    }

    private function mustWorkAt(Site $site): void
    {
        if (!$this->seen->has($site->id)) {
            throw $this->createAccessDeniedException(sprintf('%s is for those who work there.', $site->name()));
        }
    }

    private function page(Fields $fields): Response
    {
        $site = $this->shell->site();

        return $this->render(
            'dock/transfers.html.twig',
            [
                'transfers' => array_values(array_filter($this->transfers->all($site), $this->isSeen(...))),
                'site' => $site,
                'fields' => $fields,
                'nonce' => bin2hex(random_bytes(8)),
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    private function one(Transfer $transfer, Fields $fields): Response
    {
        return $this->render(
            'dock/transfer.html.twig',
            [
                'transfer' => $transfer,
                'lines' => array_values(array_filter(
                    $transfer->lines(),
                    static fn (TransferLine $line): bool => true !== $line->sent()?->isZero(),
                )),
                'places' => $this->places->of($transfer),
                'here' => $this->seen->has($transfer->source->id),
                'there' => $this->seen->has($transfer->target->id),
                'fields' => $fields,
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }
}
