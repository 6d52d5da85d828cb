<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\TaxRate;
use TallBarrel\Store\Business\TaxRates;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Keeping\KeepTaxRates;

/** Rates of tax by the names people call them. */
#[Route('/settings/taxes')]
final class TaxRatesController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly TaxRates $rates,
        private readonly CurrentBusiness $business,
        private readonly KeepTaxRates $keep,
    ) {
    }

    #[Route('', name: 'tax_rates', methods: ['GET'])]
    public function list(): Response
    {
        return $this->page(Fields::none());
    }

    #[Route('', name: 'tax_rate_add', methods: ['POST']), IsGranted('ROLE_APPROVE')]
    public function add(Request $request, #[CurrentUser] Person $by): Response
    {
        $fields = Fields::of($request);
        $this->keep->add(
            $fields->text('name', TaxRate::LONGEST),
            $fields->tax('rate', $fields->text('rate', 60)),
            $fields->day('from', $fields->text('from', 10)),
            $by,
            $fields->problems,
        );

        return $fields->isGood() ? $this->redirectToRoute('tax_rates') : $this->page($fields);
    }

    /** At which of them we account for tax that is not charged. */
    #[Route('/own', name: 'tax_own', methods: ['POST']), IsGranted('ROLE_APPROVE')]
    public function accountBy(Request $request, #[CurrentUser] Person $by): Response
    {
        $fields = Fields::of($request);
        $this->keep->accountBy($fields->text('own', TaxRate::LONGEST), $by, $fields->problems);

        return $fields->isGood() ? $this->redirectToRoute('tax_rates') : $this->page($fields);
    }

    #[Route('/{id}', name: 'tax_rate_out', requirements: ['id' => '\d{1,9}'], methods: ['POST']),
        IsGranted('ROLE_APPROVE')]
    public function takeOut(int $id, #[CurrentUser] Person $by): Response
    {
        $rate = $this->entities->find(TaxRate::class, $id)
            ?? throw $this->createNotFoundException('There is no such rate.');
        try {
            $this->keep->takeOut($rate, $by);
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }

        return $this->redirectToRoute('tax_rates');
    }

    private function page(Fields $fields): Response
    {
        return $this->render(
            'settings/tax_rates.html.twig',
            [
                'rates' => $this->entities
                    ->getRepository(TaxRate::class)
                    ->findBy([], ['name' => 'ASC', 'fromDay' => 'DESC']),
                'now' => $this->rates->today(),
                'own' => $this->business->get()->ownTax(),
                'fields' => $fields,
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }
}
