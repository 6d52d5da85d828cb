<?php

declare(strict_types=1);

namespace TallBarrel\Desk\People;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Person\Right;
use TallBarrel\Store\Person\Role;
use TallBarrel\Work\Keeping\SetRights;

/** What each role may see and do. */
#[Route('/settings/rights')]
final class RightsController extends AbstractController
{
    public function __construct(private readonly CurrentBusiness $business)
    {
    }

    #[Route('', name: 'rights', methods: ['GET'])]
    public function show(): Response
    {
        $business = $this->business->get();

        return $this->page(
            array_combine(
                array_column(Role::cases(), 'value'),
                array_map($business->rightsOf(...), Role::cases()),
            ),
            Fields::none(),
        );
    }

    #[Route('', name: 'rights_save', methods: ['POST']), IsGranted('ROLE_APPROVE')]
    public function save(Request $request, SetRights $set, #[CurrentUser] Person $by): Response
    {
        $fields = Fields::of($request);
        $asked = $limits = [];
        foreach (Role::cases() as $role) {
            if (Role::Owner !== $role) {
                $typed = $request->request->all()[$role->value] ?? [];
                $asked[$role->value] = array_values(array_filter(
                    Right::cases(),
                    static fn (Right $right): bool => is_array($typed) && isset($typed[$right->value]),
                ));
                $name = 'limit-'.$role->value;
                $limits[$role->value] = $fields->price($name, $fields->text($name, 20));
            }
        }
        [$idle, $most] = array_map(
            static fn (string $name): ?int => self::whole($fields, $name),
            ['idle', 'most'],
        );
        if ($fields->isGood()) {
            $set->set($asked, $limits, $idle, $most, $by, $fields->problems);
        }
        if (!$fields->isGood()) {
            return $this->page([Role::Owner->value => Right::cases()] + $asked, $fields);
        }
        $this->addFlash('fine', 'Saved. Whoever is signed in with a role that changed signs in anew.');

        return $this->redirectToRoute('rights');
    }

    private static function whole(Fields $fields, string $name): ?int
    {
        $typed = $fields->text($name, 6);
        if ('' !== $typed && !ctype_digit($typed)) {
            $fields->refuse($name, sprintf('“%s” is no whole number.', $typed));
        }

        return ctype_digit($typed) ? (int) $typed : null;
    }

    /** @param array<string, list<Right>> $given by role */
    private function page(array $given, Fields $fields): Response
    {
        return $this->render(
            'people/rights.html.twig',
            [
                'roles' => Role::cases(),
                'rights' => Right::cases(),
                'given' => $given,
                'limits' => array_combine(
                    array_column(Role::cases(), 'value'),
                    array_map($this->business->get()->stockLimit(...), Role::cases()),
                ),
                'stay' => $this->business->get()->visitLength(),
                'fields' => $fields,
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }
}
