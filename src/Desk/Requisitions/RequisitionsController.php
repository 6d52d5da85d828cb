<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Requisitions;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Requisition\Requisition;
use TallBarrel\Store\Requisition\Requisitions;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Ordering\AskForGoods;
use TallBarrel\Work\Ordering\DecideRequisition;

/** What colleagues wish to be bought, and what becomes of it. */
#[Route('/requisitions')]
final class RequisitionsController extends AbstractController
{
    public function __construct(
        private readonly Requisitions $requisitions,
        private readonly EntityManagerInterface $entities,
        private readonly Shell $shell,
    ) {
    }

    #[Route('', name: 'requisitions', methods: ['GET'])]
    public function list(#[CurrentUser] Person $person): Response
    {
        return $this->page($person, Fields::none());
    }

    /** Items that somebody may mean, while they type. */
    #[Route('/items', name: 'requisition_items', methods: ['GET'])]
    public function items(Request $request): Response
    {
        $words = trim(mb_substr($request->query->getString('words'), 0, 60));

        return $this->render('requisitions/_items.html.twig', [
            'items' => mb_strlen($words) < 2 ? [] : $this->requisitions->like($words),
        ]);
    }

    #[Route('', name: 'requisition_new', methods: ['POST'])]
    public function ask(Request $request, AskForGoods $ask, Sites $sites, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $quantity = $fields->quantity('quantity', $fields->text('quantity', 20));
        $asked = $ask->ask(
            $person,
            $fields->text('words'),
            $quantity,
            $sites->find((int) $fields->text('site')) ?? $sites->all()[0],
            $fields->day('wanted', $fields->text('wanted')),
            $fields->text('why'),
            $fields->problems,
        );
        if (null === $asked) {
            return $this->page($person, $fields);
        }
        $this->addFlash('fine', sprintf('A buyer sees that you ask for %s.', $asked->words));

        return $this->redirectToRoute('requisitions');
    }

    #[Route('/{id}/back', name: 'requisition_back', requirements: ['id' => '\d+'], methods: ['POST'])]
    public function takeBack(int $id, AskForGoods $ask, #[CurrentUser] Person $person): Response
    {
        return $this->decided(static function () use ($ask, $id, $person): string {
            $ask->takeBack($id, $person);

            return 'You no longer ask for it.';
        });
    }

    #[Route('/{id}/order', name: 'requisition_order', requirements: ['id' => '\d+'], methods: ['POST'])]
    #[IsGranted('ROLE_BUY')]
    public function order(
        int $id,
        Request $request,
        DecideRequisition $decide,
        #[CurrentUser] Person $person,
    ): Response {
        $supplier = $this->entities
            ->getRepository(Supplier::class)
            ->findOneBy(['code' => Fields::of($request)->text('supplier', 20)]);
        try {
            if (null === $supplier) {
                throw new Refused('From whom? Choose a supplier.');
            }
            $order = $decide->putOnOrder($id, $supplier, $person);
            $this->addFlash('fine', sprintf('It stands on %s, a draft to %s.', $order->number, $supplier->name()));

            return $this->redirectToRoute('order', ['number' => $order->number]);
        } catch (Refused|InvalidValue $refused) {
            $this->addFlash('short', $refused->getMessage());

            return $this->redirectToRoute('requisitions');
        }
    }

    #[Route('/{id}/quotes', name: 'requisition_quotes', requirements: ['id' => '\d+'], methods: ['POST'])]
    #[IsGranted('ROLE_BUY')]
    public function quotes(int $id, DecideRequisition $decide, #[CurrentUser] Person $person): Response
    {
        try {
            $round = $decide->askForQuotes($id, $person);
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());

            return $this->redirectToRoute('requisitions');
        }

        return $this->redirectToRoute('round', ['number' => $round->number]);
    }

    #[Route('/{id}/no', name: 'requisition_no', requirements: ['id' => '\d+'], methods: ['POST'])]
    #[IsGranted('ROLE_BUY')]
    public function decline(
        int $id,
        Request $request,
        DecideRequisition $decide,
        #[CurrentUser] Person $person,
    ): Response {
        $reason = Fields::of($request)->text('reason');

        return $this->decided(
            static fn (): string => sprintf(
                '%s reads why not.',
                $decide->decline($id, $reason, $person)->by->firstName(),
            ),
        );
    }

    /** @param callable(): string $act answers with what it did */
    private function decided(callable $act): Response
    {
        try {
            $this->addFlash('fine', $act());
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }

        return $this->redirectToRoute('requisitions');
    }

    private function page(Person $person, Fields $fields): Response
    {
        $buys = $this->isGranted('ROLE_BUY');
        $waiting = $buys ? $this->requisitions->waiting() : $this->requisitions->askedBy($person);

        return $this->render(
            'requisitions/requisitions.html.twig',
            [
                'waiting' => $waiting,
                'decided' => $this->requisitions->decided($buys ? null : $person),
                'sellers' => $buys ? $this->sellers($waiting) : [],
                'suppliers' => $buys
                    ? $this->entities->getRepository(Supplier::class)->findBy([], ['name' => 'ASC'])
                    : [],
                'sites' => $this->shell->sites(),
                'here' => $this->shell->site(),
                'fields' => $fields,
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    /**
     * @param list<Requisition> $waiting
     *
     * @return array<int, list<string>> codes of suppliers by item, the first choice first
     */
    private function sellers(array $waiting): array
    {
        $items = [];
        foreach ($waiting as $one) {
            if (null !== $one->item) {
                $items[] = $one->item->id;
            }
        }

        return [] === $items ? [] : $this->requisitions->sellers($items);
    }
}
