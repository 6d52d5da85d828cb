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
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Settling\ChargeKind;
use TallBarrel\Core\Settling\SpreadBasis;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Dock\Receipt;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\LandedCharge;
use TallBarrel\Store\Settle\LandedCharges;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Settling\AskedCharge;
use TallBarrel\Work\Settling\LandedShare;
use TallBarrel\Work\Settling\SpreadCharge;

/** Freight, duty and the like, spread over what came: shown first, then booked, and taken back. */
#[Route('/settle/charges'), AboutMoney]
final class ChargesController extends AbstractController
{
    private const MOST = 40;

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly LandedCharges $charges,
        private readonly SpreadCharge $spread,
        private readonly Rates $rates,
        private readonly CurrentBusiness $business,
        private readonly ClockInterface $clock,
    ) {
    }

    #[Route('', name: 'charges', methods: ['GET'], priority: 3)]
    public function list(): Response
    {
        return $this->render('settle/charges.html.twig', [
            'charges' => $this->charges->known(),
            'expected' => $this->charges->expected(),
        ]);
    }

    #[Route('/new', name: 'charge_new', methods: ['GET'], priority: 4), IsGranted('ROLE_INVOICE')]
    public function blank(Request $request): Response
    {
        return $this->form(Fields::query($request), []);
    }

    /** Shows what it would do; with the other button, does it. */
    #[Route('/new', name: 'charge_spread', methods: ['POST'], priority: 4), IsGranted('ROLE_INVOICE')]
    public function spread(Request $request, #[CurrentUser] Person $by): Response
    {
        $fields = Fields::of($request);
        $asked = $this->asked($fields);
        $shares = $replaced = $less = [];
        if (null !== $asked && $fields->isGood()) {
            try {
                $shares = $this->spread->shares($asked);
                $replaced = $this->spread->replaced($asked);
                $less = $this->spread->less($asked);
                if ('book' === $fields->text('do')) {
                    $charge = $this->spread->book($asked, $by, 'charge-'.$fields->text('key', 45));
                    $this->addFlash('fine', sprintf('%s is spread over what came.', $charge->number));

                    return $this->redirectToRoute('charge', ['number' => $charge->number]);
                }
            } catch (InvalidValue|Refused $problem) {
                $fields->refuse('basis', $problem->getMessage());
            }
        }

        return $this->form($fields, $shares, $replaced, $less);
    }

    #[Route('/{number}', name: 'charge', methods: ['GET'], priority: 3)]
    public function show(string $number): Response
    {
        return $this->one($this->find($number), Fields::none());
    }

    #[Route('/{number}', name: 'charge_back', methods: ['POST'], priority: 3), IsGranted('ROLE_DECIDE')]
    public function back(string $number, Request $request, #[CurrentUser] Person $by): Response
    {
        $fields = Fields::of($request);
        try {
            $this->spread->takeBack($this->find($number), $fields->text('why', 200), $by);
        } catch (Refused $refused) {
            $fields->refuse('why', $refused->getMessage());

            return $this->one($this->find($number), $fields);
        }
        $this->addFlash('fine', sprintf('%s is taken back; what is there costs what it did.', $number));

        return $this->redirectToRoute('charge', ['number' => $number]);
    }

    private function asked(Fields $fields): ?AskedCharge
    {
        $amount = $fields->price('amount', $fields->text('amount', 20));
        if (null === $amount && !isset($fields->errors()['amount'])) {
            $fields->refuse('amount', 'How much is it?');
        }
        $currency = $fields->text('currency', 3, $this->business->get()->currency);
        $receipts = [];
        foreach (preg_split('/[\s,;]+/', $fields->text('receipts', 400), -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $number) {
            $receipt = $this->entities->getRepository(Receipt::class)->findOneBy(['number' => $number]);
            if (null === $receipt || null !== $receipt->takesBack) {
                $fields->refuse('receipts', sprintf('There is no receipt “%s” that goods came with.', $number));
            } else {
                $receipts[$receipt->id] = $receipt;
            }
        }
        if ([] === $receipts) {
            $fields->refuse('receipts', 'Which receipts came with it? Type their numbers.');
        }
        if (count($receipts) > self::MOST) {
            $fields->refuse('receipts', sprintf('%d receipts; at most %d at once.', count($receipts), self::MOST));
        }
        $typed = [];
        foreach ($fields->each('share') as $line => $share) {
            $read = $fields->price('share-'.$line, $share);
            if (null !== $read) {
                $typed[$line] = $read;
            }
        }
        if (null === $amount || !$fields->isGood()) {
            return null;
        }
        $money = $fields->attempt('amount', static fn (): Money => Money::of($amount, $currency)->rounded());

        return null === $money ? null : new AskedCharge(
            ChargeKind::tryFrom($fields->text('kind')) ?? ChargeKind::Freight,
            $this->entities->getRepository(Supplier::class)->findOneBy(['code' => $fields->text('supplier', 20)]),
            $fields->text('paper', 40),
            $money,
            SpreadBasis::tryFrom($fields->text('basis')) ?? SpreadBasis::Value,
            array_values($receipts),
            $typed,
            '' !== $fields->text('part', 1),
        );
    }

    private function find(string $number): LandedCharge
    {
        return $this->charges->byNumber($number)
            ?? throw $this->createNotFoundException(sprintf('There is no charge %s.', $number));
    }

    /**
     * @param list<LandedShare>      $shares
     * @param list<LandedCharge>     $replaced what was expected and goes off again for it
     * @param array<int, BigDecimal> $less     by how much a unit costs less for that, by line of a receipt
     */
    private function form(Fields $fields, array $shares, array $replaced = [], array $less = []): Response
    {
        return $this->render(
            'settle/charge_new.html.twig',
            [
                'fields' => $fields,
                'shares' => $shares,
                'replaced' => $replaced,
                'less' => $less,
                'kinds' => ChargeKind::cases(),
                'bases' => SpreadBasis::cases(),
                'currencies' => array_values(array_unique([
                    $this->business->get()->currency,
                    ...array_keys($this->rates->allOn($this->clock->now())),
                ])),
                'suppliers' => $this->entities->getRepository(Supplier::class)->findBy(
                    ['archivedOn' => null],
                    ['name' => 'ASC'],
                ),
                'nonce' => bin2hex(random_bytes(8)),
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    private function one(LandedCharge $charge, Fields $fields): Response
    {
        return $this->render(
            'settle/charge.html.twig',
            ['charge' => $charge, 'fields' => $fields],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }
}
