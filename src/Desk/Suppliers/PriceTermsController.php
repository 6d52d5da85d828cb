<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Suppliers;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Form\FormInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Problems;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\Form\Forms;
use TallBarrel\Store\Offer\Offers;
use TallBarrel\Store\Offer\PriceTerm;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Sourcing\KeepPriceTerm;
use TallBarrel\Work\Sourcing\PriceTermDetails;

/** Prices and discounts that were agreed for more than one offer, and which offers they decide. */
#[Route('/agreed-prices')]
#[AboutMoney]
final class PriceTermsController extends AbstractController
{
    private const MOST_SHOWN = 100;

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Offers $offers,
        private readonly KeepPriceTerm $keep,
        private readonly Forms $forms,
        private readonly ClockInterface $clock,
    ) {
    }

    #[Route('', name: 'price_terms', methods: ['GET'])]
    public function list(Request $request): Response
    {
        $details = new PriceTermDetails();
        $details->supplier = $this->entities
            ->getRepository(Supplier::class)
            ->findOneBy(['code' => $request->query->getString('supplier')]);
        $details->item = $request->query->getString('item');

        return $this->all($this->form($details));
    }

    #[Route('', name: 'price_term_agree', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function agree(Request $request, #[CurrentUser] Person $by): Response
    {
        $details = new PriceTermDetails();
        $form = $this->form($details)->handleRequest($request);
        $term = Forms::attempt(
            $form,
            fn (Problems $problems): ?PriceTerm => $this->keep->agree($details, $by, $problems),
        );
        if (null === $term) {
            return $this->all($form);
        }
        $this->addFlash('fine', sprintf('“%s” is agreed; orders go by it from its first day.', $term->name()));

        return $this->redirectToRoute('price_term', ['id' => $term->id]);
    }

    #[Route('/{id}', name: 'price_term', requirements: ['id' => '\d{1,9}'], methods: ['GET'])]
    public function show(int $id): Response
    {
        $term = $this->find($id);

        return $this->one($term, $this->form(PriceTermDetails::of($term)));
    }

    #[Route('/{id}', name: 'price_term_save', requirements: ['id' => '\d{1,9}'], methods: ['POST']),
        IsGranted('ROLE_BUY')]
    public function save(int $id, Request $request, #[CurrentUser] Person $by): Response
    {
        $term = $this->find($id);
        $details = PriceTermDetails::of($term);
        $form = $this->form($details)->handleRequest($request);
        $version = $request->request->getInt('version');
        Forms::attempt(
            $form,
            fn (Problems $problems) => $this->keep->change($term, $details, $version, $by, $problems),
        );
        if (!$form->isSubmitted() || !$form->isValid()) {
            return $this->one($term, $form);
        }
        $this->addFlash('fine', sprintf('“%s” is saved.', $term->name()));

        return $this->redirectToRoute('price_term', ['id' => $id]);
    }

    #[Route('/{id}/end', name: 'price_term_end', requirements: ['id' => '\d{1,9}'], methods: ['POST']),
        IsGranted('ROLE_BUY')]
    public function end(int $id, #[CurrentUser] Person $by): Response
    {
        $term = $this->find($id);
        $this->keep->end($term, $by);
        $this->addFlash(
            'fine',
            sprintf('“%s” is taken away. What was ordered under it keeps its price.', $term->name()),
        );

        return $this->redirectToRoute('price_terms');
    }

    private function find(int $id): PriceTerm
    {
        return $this->entities->find(PriceTerm::class, $id)
            ?? throw $this->createNotFoundException('There is no such agreed price.');
    }

    /** @return FormInterface<mixed> */
    private function form(PriceTermDetails $details): FormInterface
    {
        return $this->forms->of(PriceTermType::class, $details, [
            'suppliers' => $this->entities
                ->getRepository(Supplier::class)
                ->findBy(['archivedOn' => null], ['name' => 'ASC']),
        ]);
    }

    /** @param FormInterface<mixed> $form */
    private function all(FormInterface $form): Response
    {
        return $this->render(
            'suppliers/price_terms.html.twig',
            [
                'terms' => $this->entities
                    ->getRepository(PriceTerm::class)
                    ->findBy([], ['firstDay' => 'DESC', 'id' => 'DESC']),
                'form' => $form->createView(),
                'today' => $this->clock->now(),
            ],
            new Response(status: $form->isSubmitted() ? 422 : 200),
        );
    }

    /** @param FormInterface<mixed> $form */
    private function one(PriceTerm $term, FormInterface $form): Response
    {
        return $this->render(
            'suppliers/price_term.html.twig',
            [
                'term' => $term,
                'offers' => $this->offers->inScopeOf($term, self::MOST_SHOWN),
                'most' => self::MOST_SHOWN,
                'form' => $form->createView(),
                'today' => $this->clock->now(),
            ],
            new Response(status: $form->isSubmitted() ? 422 : 200),
        );
    }
}
