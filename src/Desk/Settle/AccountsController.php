<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settle;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\SupplierAccounts;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Settling\KeepAccounts;

/** The accounts suppliers are paid to, each confirmed by a second person, and ours. */
#[Route('/settle/accounts'), AboutMoney]
final class AccountsController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly SupplierAccounts $accounts,
        private readonly KeepAccounts $keep,
        private readonly CurrentBusiness $business,
    ) {
    }

    #[Route('', name: 'accounts', methods: ['GET'], priority: 3)]
    public function list(Request $request): Response
    {
        return $this->page(Fields::query($request));
    }

    #[Route('', name: 'account_ask', methods: ['POST'], priority: 3), IsGranted('ROLE_INVOICE')]
    public function ask(Request $request, #[CurrentUser] Person $by): Response
    {
        $fields = Fields::of($request);
        $supplier = $this->entities->getRepository(Supplier::class)->findOneBy([
            'code' => $fields->text('supplier', 20),
        ]);
        if (null === $supplier) {
            $fields->refuse('supplier', 'Whose account is it?');
        } else {
            $this->keep->ask($supplier, $fields->text('iban', 60), $fields->text('bic', 20),
                $fields->text('holder', 200), $by, $fields->problems);
        }
        if (!$fields->isGood()) {
            return $this->page($fields);
        }
        $this->addFlash('fine', 'Typed. It is in force when another person has said yes.');

        return $this->redirectToRoute('accounts');
    }

    #[Route('/ours', name: 'account_ours', methods: ['POST'], priority: 4), IsGranted('ROLE_APPROVE')]
    public function ours(Request $request, #[CurrentUser] Person $by): Response
    {
        $fields = Fields::of($request);
        $this->keep->ours($fields->text('our_iban', 60), $fields->text('our_bic', 20), $by, $fields->problems);
        if (!$fields->isGood()) {
            return $this->page($fields);
        }
        $this->addFlash('fine', 'Kept.');

        return $this->redirectToRoute('accounts');
    }

    #[Route('/{id}', name: 'account_decide', requirements: ['id' => '\d{1,9}'], methods: ['POST'], priority: 4),
        IsGranted('ROLE_RELEASE'),]
    public function decide(int $id, Request $request, #[CurrentUser] Person $by): Response
    {
        $account = $this->accounts->find($id) ?? throw $this->createNotFoundException('There is no such account.');
        try {
            $this->keep->decide($account, 'yes' === Fields::of($request)->text('do'), $by);
            $this->addFlash('fine', sprintf('%s: %s.', $account->supplier->name(), $account->state()->words()));
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }

        return $this->redirectToRoute('accounts');
    }

    private function page(Fields $fields): Response
    {
        return $this->render(
            'settle/accounts.html.twig',
            [
                'accounts' => $this->accounts->all(),
                'inForce' => $this->accounts->bySupplier(),
                'business' => $this->business->get(),
                'suppliers' => $this->entities->getRepository(Supplier::class)->findBy(
                    ['archivedOn' => null],
                    ['name' => 'ASC'],
                ),
                'fields' => $fields,
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }
}
