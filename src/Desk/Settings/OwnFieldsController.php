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
use TallBarrel\Desk\Shell\SeenSites;
use TallBarrel\Store\Business\OwnField;
use TallBarrel\Store\Business\OwnFieldKind;
use TallBarrel\Store\Business\OwnFields;
use TallBarrel\Store\Business\OwnFieldThing;
use TallBarrel\Store\Dock\Delivery;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Keeping\KeepOwnFields;

/** Fields of the business's own, and what is typed into them on the pages of what carries them. */
final class OwnFieldsController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly OwnFields $fields,
        private readonly KeepOwnFields $keep,
        private readonly SeenSites $seen,
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
        $this->mustBeSeen($thing, $id);
        $fields = Fields::of($request);
        $this->keep->fill($thing, $id, $fields->each('own'), $fields->numerals, $fields->problems);

        return $this->render(
            '_parts/own_values.html.twig',
            ['thing' => $thing, 'id' => $id, 'fields' => $fields, 'saved' => $fields->isGood()],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    /** There is such a thing, and it belongs to a site they see. */
    private function mustBeSeen(OwnFieldThing $thing, int $id): void
    {
        $found = $this->entities->find(match ($thing) {
            OwnFieldThing::Item => Item::class,
            OwnFieldThing::Supplier => Supplier::class,
            OwnFieldThing::Order => PurchaseOrder::class,
            OwnFieldThing::Delivery => Delivery::class,
        }, $id) ?? throw $this->createNotFoundException(sprintf('There is no such %s.', $thing->value));
        $sites = match (true) {
            $found instanceof Delivery => [$found->site->id],
            $found instanceof PurchaseOrder => array_map(static fn (Site $site): int => $site->id, $found->sites()),
            default => [],
        };
        if ([] !== $sites) {
            $this->seen->mustHave(...$sites);
        }
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
