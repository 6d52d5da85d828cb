<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Rounds;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\ItemCode;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Offer\Offers;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Quote\Quote;
use TallBarrel\Store\Quote\QuoteAnswer;
use TallBarrel\Store\Quote\QuoteItem;
use TallBarrel\Store\Quote\QuoteRound;
use TallBarrel\Store\Quote\RoundFile;
use TallBarrel\Store\Quote\Rounds;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Ordering\WithdrawLink;
use TallBarrel\Work\Sourcing\AnswerQuote;
use TallBarrel\Work\Sourcing\AwardRound;
use TallBarrel\Work\Sourcing\BeginRound;
use TallBarrel\Work\Sourcing\CloseRound;
use TallBarrel\Work\Sourcing\CompareAnswers;
use TallBarrel\Work\Sourcing\RemindSuppliers;
use TallBarrel\Work\Sourcing\SendRound;

/** Quote rounds: plan one, send it, follow the answers, award. */
#[Route('/compare/rounds')]
#[AboutMoney]
final class RoundsController extends AbstractController
{
    public function __construct(
        private readonly Rounds $rounds,
        private readonly Offers $offers,
        private readonly EntityManagerInterface $entities,
        private readonly Shell $shell,
        private readonly ClockInterface $clock,
        private readonly CompareAnswers $comparison,
        private readonly Audit $audit,
    ) {
    }

    #[Route('', name: 'rounds', methods: ['GET'])]
    public function list(): Response
    {
        return $this->render('rounds/rounds.html.twig', ['rounds' => $this->rounds->rows()]);
    }

    #[Route('', name: 'round_new', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function begin(Request $request, BeginRound $begin, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $round = $begin->begin($person, $this->shell->site() ?? $this->shell->sites()[0]);
        $item = $this->item($fields->text('item'));
        if (null !== $item) {
            $units = $fields->quantity('units', $fields->text('units'));
            try {
                $round->ask($item, '', [null !== $units && $units->isPositive() ? $units : BigDecimal::one()]);
            } catch (InvalidValue $problem) {
                $this->addFlash('watch', $problem->getMessage());
            }
            foreach ($this->offers->suppliersOf([$item->id], $this->clock->now()) as $supplier) {
                $round->invite($supplier);
            }
        }
        $this->entities->flush();

        return $this->redirectToRoute('round', ['number' => $round->number]);
    }

    #[Route('/{number}', name: 'round', methods: ['GET'])]
    public function show(string $number): Response
    {
        return $this->page($this->find($number), Fields::none());
    }

    /** Saves what is asked and of whom; with "send" it goes out too. */
    #[Route('/{number}', name: 'round_save', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function save(string $number, Request $request, SendRound $send, #[CurrentUser] Person $person): Response
    {
        $round = $this->find($number);
        $fields = Fields::of($request);
        try {
            if ((int) $fields->text('version') !== $round->version()) {
                throw new Refused(
                    'Somebody changed this round while you were typing. Your entries are still in the fields; look '
                    .'at them once more and save again.',
                );
            }
            $this->apply($round, $fields, $request->files->get('file'));
            if ($fields->isGood()) {
                $this->entities->flush();
                $this->entities
                    ->getConnection()
                    ->executeStatement('UPDATE quote_round SET version = version + 1 WHERE id = ? AND version = ?', [
                        $round->id,
                        (int) $fields->text('version'),
                    ]);
                $this->entities->refresh($round);
                if ($request->request->has('send')) {
                    $send->send($round->id, $round->version(), $person);
                    $this->addFlash(
                        'fine',
                        sprintf(
                            '%s is out to %d suppliers; answers are due on %s.',
                            $number,
                            count($round->quotes()),
                            $round->replyBy()->format('D j M'),
                        ),
                    );
                }
            }
        } catch (InvalidValue|Refused $problem) {
            $fields->refuse('round', $problem->getMessage());
        }
        if (!$fields->isGood()) {
            $this->entities->clear();

            return $this->page($this->find($number), $fields);
        }

        return $this->redirectToRoute('round', ['number' => $number]);
    }

    #[Route('/{number}/remind', name: 'round_remind', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function remind(string $number, RemindSuppliers $remind, #[CurrentUser] Person $person): Response
    {
        $reminded = $remind->remind($this->find($number)->id, $person);
        $this->addFlash(
            $reminded > 0 ? 'fine' : 'watch',
            $reminded > 0 ? sprintf('%d reminded.', $reminded) : 'Everybody has answered, or was reminded today.',
        );

        return $this->redirectToRoute('round', ['number' => $number]);
    }

    #[Route('/{number}/award', name: 'round_award', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function award(string $number, Request $request, AwardRound $award, #[CurrentUser] Person $person): Response
    {
        $round = $this->find($number);
        $fields = Fields::of($request);
        $given = [];
        foreach ($round->items() as $item) {
            $sum = BigDecimal::zero();
            foreach ($round->quotes() as $quote) {
                $name = sprintf('give-%d-%d', $item->id, $quote->id);
                $units = $fields->quantity($name, $fields->text($name)) ?? BigDecimal::zero();
                $given[$quote->id][$item->id] = $units;
                $sum = $sum->plus($units);
            }
            if (!$sum->isEqualTo($item->needed()) && '1' !== $fields->text('anyway')) {
                $fields->refuse('sum-'.$item->id, sprintf('%s given, %s asked for.', $sum, $item->needed()));
            }
        }
        try {
            if ($fields->isGood()) {
                $orders = $award->award(
                    $round->id,
                    (int) $fields->text('version'),
                    $given,
                    '1' === $fields->text('keep'),
                    $person,
                );
                $this->addFlash(
                    'fine',
                    sprintf(
                        'Awarded. Drafted: %s.',
                        implode(
                            ', ',
                            array_map(
                                static fn (PurchaseOrder $order): string => $order->number.
                                    ' for '.
                                    $order->supplier->name(),
                                $orders,
                            ),
                        ),
                    ),
                );

                return 1 === count($orders)
                    ? $this->redirectToRoute('order', ['number' => $orders[0]->number])
                    : $this->redirectToRoute('drafts');
            }
        } catch (InvalidValue|Refused $problem) {
            $fields->refuse('round', $problem->getMessage());
            $this->entities->clear();
        }

        return $this->page($this->find($number), $fields);
    }

    #[Route('/{number}/close', name: 'round_close', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function close(string $number, Request $request, CloseRound $close, #[CurrentUser] Person $person): Response
    {
        try {
            $close->close($this->find($number)->id, (int) Fields::of($request)->text('version'), $person);
            $this->addFlash('fine', sprintf('%s is closed; whoever answered has been thanked.', $number));
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }

        return $this->redirectToRoute('round', ['number' => $number]);
    }

    /** One supplier's part: what was sent and said, and its answer typed or brought by us. */
    #[Route('/{number}/{code}', name: 'quote', methods: ['GET'])]
    public function quote(string $number, string $code): Response
    {
        return $this->quotePage($this->quoteOf($number, $code), Fields::none());
    }

    #[Route('/{number}/{code}', name: 'quote_answer', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function answer(
        string $number,
        string $code,
        Request $request,
        AnswerForm $form,
        AnswerQuote $answering,
        WithdrawLink $withdraw,
        #[CurrentUser] Person $person,
    ): Response {
        $quote = $this->quoteOf($number, $code);
        $fields = Fields::of($request);
        $file = $request->files->get('file');
        if ($request->request->has('withdraw')) {
            $withdraw->ofQuote($quote, $person);
            $this->addFlash('fine', 'The link they have leads nowhere any more; a reminder carries a new one.');

            return $this->redirectToRoute('quote', ['number' => $number, 'code' => $code]);
        }
        if ($request->request->has('decline')) {
            try {
                $answering->decline($quote, $fields->text('reason', 300), $person);
            } catch (Refused $refused) {
                $fields->refuse('answer', $refused->getMessage());
            }
        } elseif ($file instanceof UploadedFile && $file->isValid()) {
            $form->takeFile(
                $quote,
                $fields,
                (string) file_get_contents($file->getPathname(), length: 1 << 20),
                $person,
            );
        } else {
            $form->take($quote, $fields, QuoteAnswer::TYPED, $person);
        }
        if (!$fields->isGood()) {
            return $this->quotePage($this->quoteOf($number, $code), $fields);
        }
        $this->addFlash('fine', sprintf('The answer of %s is in.', $quote->supplier->name()));

        return $this->redirectToRoute('round', ['number' => $number]);
    }

    #[Route('/{number}/file/{id}', name: 'round_file', requirements: ['id' => '\d+'], methods: ['GET'], priority: 1)]
    public function attachment(string $number, int $id): Response
    {
        foreach ($this->find($number)->files() as $file) {
            if ($file->id === $id) {
                return self::download($file);
            }
        }
        throw $this->createNotFoundException('There is no such file.');
    }

    public static function download(RoundFile $file): Response
    {
        return new Response($file->content(), 200, [
            'Content-Type' => 'application/octet-stream',
            'Content-Disposition' => \Symfony\Component\HttpFoundation\HeaderUtils::makeDisposition(
                'attachment',
                $file->filename,
                (string) preg_replace('/[^\x20-\x7e]|[%\/\\\\]/', '_', $file->filename),
            ),
        ]);
    }

    private function apply(QuoteRound $round, Fields $fields, mixed $file): void
    {
        $today = $this->clock->now()->setTime(0, 0);
        $replyBy = $fields->day('reply_by', $fields->text('reply_by')) ?? $round->replyBy();
        $wanted = $fields->day('wanted_on', $fields->text('wanted_on')) ?? $round->wantedOn();
        $site =
            array_values(
                array_filter(
                    $this->shell->sites(),
                    static fn ($site): bool => (string) $site->id === $fields->text('site'),
                ),
            )[0] ?? $round->site();
        $fields->apply(
            'reply_by',
            static fn () => $round->plan($site, $replyBy, $wanted, $fields->text('requirements', 2000), $today),
        );
        foreach ($round->items() as $item) {
            if (isset($fields->each('remove')[$item->id])) {
                $round->drop($item);
            }
        }
        $add = $fields->text('add', 200);
        if ('' !== $add) {
            $item = $this->item($add);
            $fields->attempt(
                'add',
                static fn (): QuoteItem => $round->ask(
                    $item,
                    $add,
                    QuoteItem::read($fields->text('add_quantities'), $fields->numerals),
                ),
            );
        }
        $ticked = $fields->each('supplier');
        foreach ($round->quotes() as $quote) {
            if (!isset($ticked[$quote->supplier->id])) {
                $this->entities->remove($quote);
            }
        }
        $asked = array_map(static fn (Quote $quote): int => $quote->supplier->id, $round->quotes());
        foreach (array_keys($ticked) as $id) {
            $supplier = $this->entities->find(Supplier::class, $id);
            if (null !== $supplier && !in_array($id, $asked, true)) {
                $round->invite($supplier);
            }
        }
        if ($file instanceof UploadedFile) {
            if (!$file->isValid() || $file->getSize() > RoundFile::MOST_BYTES) {
                $fields->refuse(
                    'file',
                    sprintf(
                        '%s is too large to send along; at most %d MB.',
                        $file->getClientOriginalName(),
                        RoundFile::MOST_BYTES / 1048576,
                    ),
                );
            } else {
                $round->attach(
                    new RoundFile(
                        $round,
                        mb_substr($file->getClientOriginalName(), 0, 120),
                        $file->getMimeType() ?? 'application/octet-stream',
                        (string) file_get_contents($file->getPathname()),
                    ),
                );
            }
        }
    }

    private function page(QuoteRound $round, Fields $fields): Response
    {
        $items = array_values(
            array_filter(
                array_map(static fn (QuoteItem $item): ?int => $item->item?->id, $round->items()),
                static fn (?int $id): bool => null !== $id,
            ),
        );

        return $this->render(
            'rounds/round.html.twig',
            [
                'round' => $round,
                'fields' => $fields,
                'offering' => $this->offers->suppliersOf($items, $this->clock->now()),
                'suppliers' => $this->entities->getRepository(Supplier::class)->findBy([], ['name' => 'ASC']),
                'sites' => $this->shell->sites(),
                'history' => $this->audit->of($round->number),
                'comparison' => $round->isDraft() ? null : $this->comparison->of($round),
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    private function quotePage(Quote $quote, Fields $fields): Response
    {
        return $this->render(
            'rounds/quote.html.twig',
            ['quote' => $quote, 'round' => $quote->round, 'fields' => $fields],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    private function item(string $typed): ?Item
    {
        return '' === $typed
            ? null
            : $this->entities->getRepository(Item::class)->findOneBy(['code' => ItemCode::chosen($typed)]);
    }

    private function find(string $number): QuoteRound
    {
        return $this->rounds->byNumber($number) ??
            throw $this->createNotFoundException(sprintf('There is no round %s.', $number));
    }

    private function quoteOf(string $number, string $code): Quote
    {
        foreach ($this->find($number)->quotes() as $quote) {
            if ($quote->supplier->code === $code) {
                return $quote;
            }
        }
        throw $this->createNotFoundException(sprintf('%s was not asked in %s.', $code, $number));
    }
}
