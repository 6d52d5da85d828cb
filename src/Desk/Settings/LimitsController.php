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
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Keeping\SetLimits;

/** What each person may order without a yes, and who says it in their place. */
#[Route('/settings/limits')]
final class LimitsController extends AbstractController
{
    public function __construct(private readonly EntityManagerInterface $entities)
    {
    }

    #[Route('', name: 'limits', methods: ['GET'])]
    public function show(): Response
    {
        return $this->page(Fields::none());
    }

    #[Route('', name: 'limits_save', methods: ['POST']), IsGranted('ROLE_APPROVE')]
    public function save(Request $request, SetLimits $set, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $asked = [];
        [$months, $standIns, $untils] = [$fields->each('month'), $fields->each('stand_in'), $fields->each('until')];
        foreach ($fields->each('order') as $id => $typed) {
            $asked[$id] = [
                'anOrder' => $fields->price('order-'.$id, $typed),
                'aMonth' => $fields->price('month-'.$id, $months[$id] ?? ''),
                'standIn' => '' === ($standIns[$id] ?? '') ? null : (int) $standIns[$id],
                'until' => $fields->day('until-'.$id, $untils[$id] ?? ''),
            ];
        }
        if ($fields->isGood()) {
            $set->set($asked, $person, $fields->problems);
        }
        if (!$fields->isGood()) {
            return $this->page($fields);
        }
        $this->addFlash('fine', 'Saved. It holds for the next order.');

        return $this->redirectToRoute('limits');
    }

    private function page(Fields $fields): Response
    {
        $people = $this->entities->getRepository(Person::class)->findBy([], ['name' => 'ASC']);

        return $this->render('settings/limits.html.twig', [
            'people' => array_values(
                array_filter(
                    $people,
                    static fn (Person $one): bool => in_array('ROLE_BUY', $one->role()->grants(), true),
                ),
            ),
            'fields' => $fields,
        ], new Response(status: $fields->isGood() ? 200 : 422));
    }
}
