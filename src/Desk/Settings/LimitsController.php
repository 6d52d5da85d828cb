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
use TallBarrel\Core\Ordering\ChangedPart;
use TallBarrel\Core\Ordering\YesRule;
use TallBarrel\Core\Ordering\YesRules;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Item\Categories;
use TallBarrel\Store\Order\CategoryApproval;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Keeping\SetLimits;

/** What each person may order without a yes, and who says it in their place. */
#[Route('/settings/limits')]
final class LimitsController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Categories $categories,
        private readonly CurrentBusiness $business,
    ) {
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

    /** Who is asked of which category, and which changes of a sent order need a new yes. */
    #[Route('/asked', name: 'limits_ask', methods: ['POST']), IsGranted('ROLE_APPROVE')]
    public function ask(Request $request, SetLimits $set, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        [$above, $asked] = [$fields->each('above'), $fields->each('asked')];
        $categories = [];
        foreach ($fields->each('category') as $i => $category) {
            $categories[$i] = [
                'category' => mb_substr($category, 0, 60),
                'above' => $fields->price('category-'.$i, $above[$i] ?? ''),
                'asked' => '' === ($asked[$i] ?? '') ? null : (int) $asked[$i],
            ];
        }
        $rules = [];
        foreach (ChangedPart::cases() as $part) {
            $rules[$part->value] = $fields->text('rule-'.$part->value, 20);
        }
        if ($fields->isGood()) {
            $set->ask($categories, YesRules::of($rules), $person, $fields->problems);
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
            'approvals' => $this->entities->getRepository(CategoryApproval::class)->findBy([], ['category' => 'ASC']),
            'categories' => $this->categories->all(),
            'parts' => ChangedPart::cases(),
            'rules' => $this->business->get()->yesRules(),
            'askable' => YesRule::cases(),
            'fields' => $fields,
        ], new Response(status: $fields->isGood() ? 200 : 422));
    }
}
