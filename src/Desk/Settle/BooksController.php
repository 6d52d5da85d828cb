<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settle;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Settling\Books\BookEntry;
use TallBarrel\Core\Settling\Books\LedgerAccount;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\TakenFile;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\BookPeriods;
use TallBarrel\Work\Settling\KeepBooks;

/** What goes to the bookkeeping, month by month; under the names of the owner's chart of accounts. */
#[Route('/settle/books')]
#[AboutMoney]
final class BooksController extends AbstractController
{
    private const COLUMNS = ['day', 'month', 'document', 'words', 'account', 'debit', 'credit', 'currency'];

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly KeepBooks $books,
        private readonly BookPeriods $periods,
        private readonly CurrentBusiness $business,
        private readonly ClockInterface $clock,
    ) {
    }

    #[Route('', name: 'books', methods: ['GET'])]
    public function show(): Response
    {
        $entries = $this->books->entries();
        $month = $this->books->next();
        $totals = KeepBooks::totals($entries);
        $zero = BigDecimal::zero();

        return $this->render('settle/books.html.twig', [
            'month' => $month,
            'isOver' => $month < $this->clock->now()->format('Y-m'),
            'entries' => $entries,
            'totals' => array_filter(
                array_map(
                    fn (LedgerAccount $account): array => [
                        'account' => $account,
                        'called' => $this->business->get()->calls($account),
                        'debit' => $totals[$account->value][0] ?? $zero,
                        'credit' => $totals[$account->value][1] ?? $zero,
                    ],
                    LedgerAccount::cases(),
                ),
                static fn (array $row): bool => !$row['debit']->isZero() || !$row['credit']->isZero(),
            ),
            'accounts' => array_map(
                fn (LedgerAccount $account): array => [$account, $this->business->get()->calls($account)],
                LedgerAccount::cases(),
            ),
            'closed' => $this->periods->all(),
        ]);
    }

    #[Route('/close', name: 'books_close', methods: ['POST']), IsGranted('ROLE_RELEASE')]
    public function close(Request $request, #[CurrentUser] Person $person): Response
    {
        try {
            $period = $this->books->close(Fields::of($request)->text('month', 7), $person);
            $this->addFlash('fine', sprintf(
                '%s is closed: %d entries. What is still noted of it goes to the next month.',
                $period->month,
                count($period->entries()),
            ));
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }

        return $this->redirectToRoute('books');
    }

    #[Route('/accounts', name: 'books_accounts', methods: ['POST']), IsGranted('ROLE_RELEASE')]
    public function name(Request $request): Response
    {
        $fields = Fields::of($request);
        $named = [];
        foreach (LedgerAccount::cases() as $account) {
            $typed = $fields->text('account-'.$account->value, 60);
            $named[$account->value] = $typed === $account->words() ? '' : $typed;
        }
        if ($fields->isGood()) {
            $this->business->get()->booksOn($named);
            $this->entities->flush();
            $this->addFlash('fine', 'The accounts are kept.');
        }
        foreach ($fields->errors() as $name => $words) {
            $this->addFlash('short', sprintf('%s: %s', substr($name, 8), $words));
        }

        return $this->redirectToRoute('books');
    }

    /** A month that is closed as it went; the one that runs as it stands. */
    #[Route('/{month}.{format}', name: 'books_file', methods: ['GET'],
        requirements: ['month' => '\d{4}-\d\d', 'format' => TakenFile::FORMATS])]
    public function takeOut(string $month, string $format, TakenFile $file): Response
    {
        $period = $this->periods->of($month);
        if (null === $period && $month !== $this->books->next()) {
            throw $this->createNotFoundException('Nothing was booked for that month.');
        }
        $rows = [self::COLUMNS];
        foreach ($period?->entries() ?? $this->books->entries() as $entry) {
            foreach ($entry instanceof BookEntry ? $entry->lines : $entry->lines() as $line) {
                $rows[] = [
                    $entry->day->format('Y-m-d'), $month, $entry->document, $entry->words,
                    $this->business->get()->calls($line->account),
                    $line->amount->isPositive() ? (string) $line->amount : '',
                    $line->amount->isNegative() ? (string) $line->amount->negated() : '',
                    $this->business->get()->currency,
                ];
            }
        }

        return $file->of('books-'.$month.(null === $period ? '-not-closed' : ''), $rows, $format, 'Books '.$month);
    }
}
