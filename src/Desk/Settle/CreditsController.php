<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settle;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\NumbersInAddresses;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\CreditNotes;
use TallBarrel\Store\Settle\InvoicePaper;
use TallBarrel\Store\Settle\InvoicePapers;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Settling\AskedCredit;
use TallBarrel\Work\Settling\EnterCredit;
use TallBarrel\Work\Settling\ReadPaper;

/** Credit notes: those that suppliers owe, and those that came. */
#[Route('/settle/credits')]
#[AboutMoney]
final class CreditsController extends AbstractController
{
    private const FREE = 2;

    public function __construct(
        private readonly CreditNotes $credits,
        private readonly InvoicePapers $papers,
        private readonly ReadPaper $read,
        private readonly EntityManagerInterface $entities,
    ) {
    }

    #[Route('', name: 'credits', methods: ['GET'])]
    public function list(): Response
    {
        return $this->render('settle/credits.html.twig', [
            'expected' => $this->credits->expected(),
            'notes' => $this->credits->latest(),
            'suppliers' => $this->entities->getRepository(Supplier::class)
                ->findBy(['archivedOn' => null], ['name' => 'ASC']),
        ]);
    }

    #[Route('/new/{code}', name: 'credit_new', methods: ['GET']), IsGranted('ROLE_INVOICE')]
    public function show(string $code, Request $request): Response
    {
        $supplier = $this->supplier($code);
        $paper = $this->papers->waiting($supplier, NumbersInAddresses::read($request, 'paper'));

        return $this->page($supplier, Fields::none(), $request->query->getString('for'), $paper);
    }

    #[Route('/new', name: 'credit_of', methods: ['GET']), IsGranted('ROLE_INVOICE')]
    public function of(Request $request): Response
    {
        return $this->redirectToRoute('credit_new', ['code' => $request->query->getString('supplier') ?: '-']);
    }

    #[Route('/new/{code}', name: 'credit_enter', methods: ['POST']), IsGranted('ROLE_INVOICE')]
    public function enter(string $code, Request $request, EnterCredit $enter, #[CurrentUser] Person $person): Response
    {
        $supplier = $this->supplier($code);
        $fields = Fields::of($request);
        $paper = $this->papers->waiting($supplier, (int) $fields->text('paper', 12));
        $asked = new AskedCredit(
            $supplier,
            $fields->text('number', 40),
            $fields->day('day', $fields->text('day', 10)),
            $this->lines($supplier, $fields),
            $fields->price('total', $fields->text('total', 20)),
            $fields->text('key', 50),
        );
        $note = '' === $asked->key || !$fields->isGood() ? null : $enter->enter($asked, $person, $fields->problems);
        if (null === $note) {
            return $this->page($supplier, $fields, '', $paper);
        }
        if (null !== $paper) {
            $this->read->credited($paper, $note);
        }
        $this->addFlash('fine', $note->isOpen()
            ? sprintf('%s is entered; %s %s stand under To pay, to be taken off.', $note->number, $note->currency,
                $note->due()->amount)
            : sprintf('%s is entered; what it is for was never paid, so nothing is to come back.', $note->number));

        return $this->redirectToRoute('credits');
    }

    /** @return array<string, array{string, BigDecimal, BigDecimal}> */
    private function lines(Supplier $supplier, Fields $fields): array
    {
        $lines = [];
        $line = static function (string $key, string $words, string $amount, string $percent) use (
            $fields,
            $supplier,
            &$lines,
        ): void {
            $read = $fields->signed($key, $amount);
            if (null !== $read && !$read->isZero()) {
                $lines[$key] = [
                    mb_substr($words, 0, 200),
                    $read,
                    $fields->price('tax-'.$key, $percent) ?? $supplier->tax()->percent,
                ];
            } elseif ('' !== $amount && null !== $read) {
                $fields->refuse($key, 'An amount is needed.');
            }
        };
        foreach ($this->credits->expected($supplier) as $one) {
            if ('' !== $fields->text('tick-'.$one->key, 1)) {
                $line($one->key, $one->words, $fields->text($one->key, 20), $fields->text('tax-'.$one->key, 6));
            }
        }
        for ($n = 0; '' !== $fields->text('words-'.$n, 200).$fields->text('free-'.$n, 20) || $n < self::FREE; ++$n) {
            $words = $fields->text('words-'.$n, 200);
            $amount = $fields->text('free-'.$n, 20);
            if ('' !== $words && '' === $amount) {
                $fields->refuse('free-'.$n, 'How much?');
            }
            $line('free-'.$n, $words ?: 'Credit', $amount, $fields->text('tax-free-'.$n, 6));
        }

        return $lines;
    }

    private function supplier(string $code): Supplier
    {
        return $this->entities->getRepository(Supplier::class)->findOneBy(['code' => $code])
            ?? throw $this->createNotFoundException('There is no such supplier.');
    }

    private function page(Supplier $supplier, Fields $fields, string $for, ?InvoicePaper $paper): Response
    {
        $draft = null === $paper ? null : $this->read->draft($paper);

        return $this->render('settle/credit_new.html.twig', [
            'supplier' => $supplier,
            'expected' => $this->credits->expected($supplier),
            'free' => range(0, max(self::FREE, count($draft->charges ?? [])) - 1),
            'paper' => $paper,
            'draft' => $draft,
            'for' => $for,
            'fields' => $fields,
            'key' => $fields->text('key', 50, 'credit-'.bin2hex(random_bytes(8))),
        ], new Response(status: $fields->isGood() ? 200 : 422));
    }
}
