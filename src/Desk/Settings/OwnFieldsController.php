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
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Business\OwnField;
use TallBarrel\Store\Business\OwnFieldKind;
use TallBarrel\Store\Business\OwnFields;
use TallBarrel\Store\Business\OwnFieldThing;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Keeping\KeepOwnFields;

/** Fields of the business's own, and what is typed into them on the pages of what carries them. */
final class OwnFieldsController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly OwnFields $fields,
        private readonly KeepOwnFields $keep,
    ) {
    }

    #[Route('/settings/fields', name: 'own_fields', methods: ['GET'])]
    public function list(): Response
    {
        return $this->page(Fields::none());
    }

    #[Route('/settings/fields', name: 'own_field_add', methods: ['POST']), IsGranted('ROLE_APPROVE')]
    public function add(Request $request, #[CurrentUser] Person $by): Response
    {
        $fields = Fields::of($request);
        $this->keep->add(
            OwnFieldThing::tryFrom($fields->text('thing')) ?? OwnFieldThing::Item,
            $fields->text('label', 40),
            OwnFieldKind::tryFrom($fields->text('kind')) ?? OwnFieldKind::Text,
            '' !== $fields->text('on_paper'),
            preg_split('/\R/', $fields->text('choices', 2000)) ?: [],
            $by,
            $fields->problems,
        );

        return $fields->isGood() ? $this->redirectToRoute('own_fields') : $this->page($fields);
    }

    #[Route('/settings/fields/{id}', name: 'own_field_over', requirements: ['id' => '\d{1,9}'], methods: ['POST']),
        IsGranted('ROLE_APPROVE')]
    public function giveUp(int $id, Request $request, #[CurrentUser] Person $by): Response
    {
        $field = $this->entities->find(OwnField::class, $id)
            ?? throw $this->createNotFoundException('There is no such field.');
        $this->keep->giveUp($field, '' !== Fields::of($request)->text('over'), $by);

        return $this->redirectToRoute('own_fields');
    }

    /** What was typed beside an item, a supplier, an order or a delivery. */
    #[Route('/own/{thing}/{id}', name: 'own_values', requirements: ['id' => '\d{1,9}'], methods: ['POST'])]
    public function fill(OwnFieldThing $thing, int $id, Request $request): Response
    {
        $this->denyAccessUnlessGranted(OwnFieldThing::Delivery === $thing ? 'ROLE_RECEIVE' : 'ROLE_BUY');
        $fields = Fields::of($request);
        $this->keep->fill($thing, $id, $fields->each('own'), $fields->numerals, $fields->problems);

        return $this->render(
            '_parts/own_values.html.twig',
            ['thing' => $thing, 'id' => $id, 'fields' => $fields, 'saved' => $fields->isGood()],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    private function page(Fields $fields): Response
    {
        return $this->render(
            'settings/own_fields.html.twig',
            [
                'own' => $this->fields->all(),
                'things' => OwnFieldThing::cases(),
                'kinds' => OwnFieldKind::cases(),
                'fields' => $fields,
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }
}
