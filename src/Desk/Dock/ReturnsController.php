<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Dock;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Receiving\ReturnWish;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\SeenSites;
use TallBarrel\Store\Business\ReasonKind;
use TallBarrel\Store\Business\Reasons;
use TallBarrel\Store\Dock\Receipt;
use TallBarrel\Store\Dock\SupplierReturn;
use TallBarrel\Store\Dock\SupplierReturns;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Stock\StockState;
use TallBarrel\Work\Receiving\DockPaper;
use TallBarrel\Work\Receiving\SendBack;

/** Goods that go back to suppliers. */
#[Route('/dock/returns')]
final class ReturnsController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly SupplierReturns $returns,
        private readonly Reasons $reasons,
        private readonly SeenSites $seen,
        private readonly SendBack $sendBack,
    ) {
    }

    #[Route('', name: 'returns', methods: ['GET'], priority: 1)]
    public function list(): Response
    {
        return $this->render('dock/returns.html.twig', [
            'returns' => array_values(array_filter(
                $this->returns->all(),
                fn (SupplierReturn $back): bool => $this->seen->has($back->receipt->delivery->site->id),
            )),
        ]);
    }

    #[Route('/new/{receipt}', name: 'return_new', methods: ['GET'], priority: 1), IsGranted('ROLE_RECEIVE')]
    public function blank(string $receipt): Response
    {
        return $this->form($this->receipt($receipt), Fields::none());
    }

    #[Route('/new/{receipt}', name: 'return_begin', methods: ['POST'], priority: 1), IsGranted('ROLE_RECEIVE')]
    public function begin(string $receipt, Request $request, #[CurrentUser] Person $by): Response
    {
        $receipt = $this->receipt($receipt);
        $fields = Fields::of($request);
        $packs = [];
        foreach ($fields->each('back') as $line => $typed) {
            $many = $fields->quantity('back-'.$line, $typed);
            if (null !== $many) {
                $packs[$line] = $many;
            }
        }
        $back = null;
        if ($fields->isGood()) {
            try {
                $back = $this->sendBack->begin(
                    $receipt,
                    $packs,
                    StockState::tryFrom($fields->text('from')) ?? StockState::Available,
                    ReturnWish::tryFrom($fields->text('wish')) ?? ReturnWish::Credit,
                    $fields->text('reason', 40),
                    $fields->text('words', 300),
                    '' !== $fields->text('write'),
                    $by,
                    'return-'.$fields->text('key', 40),
                    $fields->problems,
                );
            } catch (Refused $refused) {
                $fields->refuse('back', $refused->getMessage());
            }
        }
        if (null === $back) {
            return $this->form($receipt, $fields);
        }
        $this->addFlash('fine', sprintf('%s is begun. Stock leaves when the goods do.', $back->number));

        return $this->redirectToRoute('return', ['number' => $back->number]);
    }

    #[Route('/{number}', name: 'return', methods: ['GET'])]
    public function show(string $number): Response
    {
        return $this->one($this->find($number), Fields::none());
    }

    /** The note that goes with them. */
    #[Route('/{number}/paper', name: 'return_paper', methods: ['GET'])]
    public function paper(string $number, DockPaper $paper): Response
    {
        return new Response($paper->goingBack($this->find($number)), 200, ['Content-Type' => 'application/pdf']);
    }

    #[Route('/{number}', name: 'return_act', methods: ['POST']), IsGranted('ROLE_RECEIVE')]
    public function act(string $number, Request $request, #[CurrentUser] Person $by): Response
    {
        $back = $this->find($number);
        $fields = Fields::of($request);
        $words = $fields->text('words', 60);
        try {
            match ($fields->isGood() ? $fields->text('do') : 'nothing') {
                'nothing' => null,
                'agree' => $this->sendBack->agree($back, mb_substr($words, 0, 40), $by),
                'send' => $this->sendBack->send($back, '' !== $fields->text('write'), $by),
                'settle' => $this->sendBack->settle($back, $words, $by),
                'drop' => $this->sendBack->drop($back, $by),
                default => throw new Refused('What is to be done with it? Press one of the buttons.'),
            };
        } catch (Refused $refused) {
            $fields->refuse('do', $refused->getMessage());
        }

        return $fields->isGood()
            ? $this->redirectToRoute('return', ['number' => $number])
            : $this->one($this->find($number), $fields);
    }

    private function form(Receipt $receipt, Fields $fields): Response
    {
        $this->entities->clear();
        $receipt = $this->receipt($receipt->number);

        return $this->render(
            'dock/return_new.html.twig',
            [
                'receipt' => $receipt,
                'before' => $this->returns->packsOf($receipt),
                'reasons' => $this->reasons->words(ReasonKind::GoodsBack),
                'states' => [StockState::Available, StockState::Held, StockState::InInspection],
                'wishes' => ReturnWish::cases(),
                'nonce' => bin2hex(random_bytes(8)),
                'fields' => $fields,
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    private function one(SupplierReturn $back, Fields $fields): Response
    {
        return $this->render(
            'dock/return.html.twig',
            ['back' => $back, 'fields' => $fields],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    private function receipt(string $number): Receipt
    {
        $receipt = $this->entities->getRepository(Receipt::class)->findOneBy(['number' => $number])
            ?? throw $this->createNotFoundException(sprintf('There is no receipt %s.', $number));
        $this->mustBeSeen($receipt);

        return $receipt;
    }

    private function find(string $number): SupplierReturn
    {
        $back = $this->returns->byNumber($number)
            ?? throw $this->createNotFoundException(sprintf('Nothing goes back as %s.', $number));
        $this->mustBeSeen($back->receipt);

        return $back;
    }

    private function mustBeSeen(Receipt $receipt): void
    {
        $this->seen->mustHave($receipt->delivery->site->id);
    }
}
