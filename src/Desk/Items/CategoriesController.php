<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Items;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Item\Categories;
use TallBarrel\Store\Item\Category;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Keeping\KeepCategory;

/** The tree of kinds of items. */
#[Route('/settings/categories')]
final class CategoriesController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Categories $categories,
        private readonly KeepCategory $keep,
    ) {
    }

    #[Route('', name: 'categories', methods: ['GET'])]
    public function show(): Response
    {
        return $this->page(Fields::none());
    }

    #[Route('', name: 'category_add', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function add(Request $request, #[CurrentUser] Person $by): Response
    {
        $fields = Fields::of($request);
        $this->keep->add($fields->text('name', 60), self::id($fields, 'under'), $by, $fields->problems);

        return $fields->isGood() ? $this->redirectToRoute('categories') : $this->page($fields);
    }

    #[Route('/{id}/{act}', name: 'category_act', requirements: ['id' => '\d{1,9}', 'act' => 'change|join|out'],
        methods: ['POST']), IsGranted('ROLE_BUY')]
    public function act(int $id, string $act, Request $request, #[CurrentUser] Person $by): Response
    {
        $fields = Fields::of($request);
        $category = $this->find($id);
        try {
            switch ($act) {
                case 'change':
                    $this->keep->change(
                        $category,
                        $fields->text('name', 60),
                        self::id($fields, 'under'),
                        $by,
                        'name-'.$id,
                        $fields->problems,
                    );
                    break;
                case 'join':
                    $this->keep->join($category, $this->find((int) self::id($fields, 'under')), $by);
                    break;
                default:
                    $this->keep->takeOut($category, $by);
            }
        } catch (Refused $refused) {
            $fields->refuse('name-'.$id, $refused->getMessage());
        }

        return $fields->isGood() ? $this->redirectToRoute('categories') : $this->page($fields);
    }

    private static function id(Fields $fields, string $name): ?int
    {
        $typed = $fields->text($name, 9);

        return ctype_digit($typed) ? (int) $typed : null;
    }

    private function find(int $id): Category
    {
        return $this->entities->find(Category::class, $id)
            ?? throw $this->createNotFoundException('There is no such category.');
    }

    private function page(Fields $fields): Response
    {
        return $this->render(
            'items/categories.html.twig',
            ['tree' => $this->categories->tree(), 'fields' => $fields],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }
}
