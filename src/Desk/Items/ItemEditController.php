<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Items;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Form\FormInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Quantity\ItemCode;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\BroughtFile;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\Form\Forms;
use TallBarrel\Desk\Shell\Format;
use TallBarrel\Store\Item\Categories;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Item\ItemUses;
use TallBarrel\Store\Item\Stocking;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Work\Keeping\CountInAnotherUnit;
use TallBarrel\Work\Keeping\ItemDetails;
use TallBarrel\Work\Keeping\JoinItems;
use TallBarrel\Work\Keeping\KeepItem;

/** What is kept of an item: added, described anew, archived, joined with its double. */
#[Route(requirements: ['code' => '.+'], priority: 3), IsGranted('ROLE_BUY')]
final class ItemEditController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Sites $sites,
        private readonly Categories $categories,
        private readonly ItemUses $uses,
        private readonly KeepItem $keep,
        private readonly Forms $forms,
    ) {
    }

    /** From scratch, or like another. */
    #[Route('/items/new', name: 'item_new', methods: ['GET'], priority: 4)]
    public function blank(Request $request): Response
    {
        $like = $this->entities
            ->getRepository(Item::class)
            ->findOneBy(['code' => $request->query->getString('like')]);
        $details = null === $like ? new ItemDetails() : ItemDetails::like($like);
        $details->name = $request->query->getString('name', $details->name);

        return $this->page(null, $this->form($details), $this->typedOf($details, $like), Fields::none());
    }

    #[Route('/items/new', name: 'item_add', methods: ['POST'], priority: 4)]
    public function add(Request $request, #[CurrentUser] Person $by): Response
    {
        $details = new ItemDetails();
        [$form, $fields] = $this->read($request, $details);
        $item = Forms::attempt($form, function (Problems $problems) use ($request, $fields, $details, $by): ?Item {
            $this->rows($request, $fields, $details, $problems);

            return $this->keep->add($details, $by, $problems);
        });
        if (null === $item) {
            return $this->page(null, $form, $fields->typed, $fields);
        }
        $this->addFlash('fine', sprintf('%s is there.', $item->code));

        return $this->redirectToRoute(
            'again' === $fields->text('do') ? 'item_new' : 'item',
            'again' === $fields->text('do') ? ['like' => $item->code] : ['code' => $item->code],
        );
    }

    #[Route('/items/{code}/edit', name: 'item_edit', methods: ['GET'])]
    public function show(string $code): Response
    {
        $item = $this->find($code);
        $details = ItemDetails::of($item);

        return $this->page($item, $this->form($details), $this->typedOf($details, $item), Fields::none());
    }

    #[Route('/items/{code}/edit', name: 'item_save', methods: ['POST'])]
    public function save(string $code, Request $request, #[CurrentUser] Person $by): Response
    {
        $item = $this->find($code);
        $details = ItemDetails::of($item);
        [$form, $fields] = $this->read($request, $details);
        Forms::attempt($form, function (Problems $problems) use ($request, $item, $fields, $details, $by): void {
            $this->rows($request, $fields, $details, $problems);
            $version = (int) $fields->text('version', 9);
            $this->keep->change($item, $details, $version, $by, $problems);
        });
        if (!$form->isSubmitted() || !$form->isValid()) {
            return $this->page($item, $form, $fields->typed, $fields);
        }
        $this->addFlash('fine', $details->name.' is saved.');

        return $this->redirectToRoute('item', ['code' => trim($details->code)]);
    }

    /** What a button at the foot of the page does. */
    #[Route('/items/{code}/{act}', name: 'item_act', requirements: ['act' => 'archive|take-up|delete|join|unit'],
        methods: ['POST'])]
    public function act(
        string $code,
        string $act,
        Request $request,
        JoinItems $join,
        CountInAnotherUnit $count,
        #[CurrentUser] Person $by,
    ): Response {
        $item = $this->find($code);
        $fields = Fields::of($request);
        $goTo = $item->code;
        try {
            switch ($act) {
                case 'archive':
                    $this->keep->archive($item, $by);
                    $words = '%s is archived: neither planned nor offered for orders. What was stays.';
                    break;
                case 'take-up':
                    $this->keep->takeUp($item, $by);
                    $words = '%s is taken up again.';
                    break;
                case 'delete':
                    $this->keep->delete($item, $by);
                    $this->addFlash('fine', sprintf('%s is deleted; it was never used.', $goTo));

                    return $this->redirectToRoute('items');
                case 'join':
                    $into = $this->entities
                        ->getRepository(Item::class)
                        ->findOneBy(['code' => ItemCode::chosen($fields->text('into'))])
                            ?? throw InvalidValue::because(
                                sprintf('There is no item “%s” to join it with.', $fields->text('into')),
                            );
                    $join->join($item, $into, $by);
                    $words = $item->code.' is now part of %s.';
                    $goTo = $into->code;
                    break;
                default:
                    $unit = Unit::tryFrom($fields->text('to')) ?? throw InvalidValue::because('Choose a unit.');
                    $factor = $fields->numerals->quantity($fields->text('factor'));
                    $count->count($item, $unit, $factor, $by);
                    $words = '%s is counted in '.$unit->symbol().' from now on.';
            }
            $this->addFlash('fine', sprintf($words, $goTo));
        } catch (Refused|InvalidValue $problem) {
            $this->addFlash('short', $problem->getMessage());

            return $this->redirectToRoute('item_edit', ['code' => $item->code]);
        }

        return $this->redirectToRoute('item', ['code' => $goTo]);
    }

    #[Route('/items/{code}/picture', name: 'item_picture', methods: ['GET']), IsGranted('ROLE_PERSON')]
    public function picture(string $code): Response
    {
        $picture = $this->find($code)->picture() ?? throw $this->createNotFoundException('There is no picture of it.');

        return new Response($picture->content(), headers: ['Content-Type' => $picture->mime]);
    }

    /** @return array{FormInterface<mixed>, Fields} */
    private function read(Request $request, ItemDetails $details): array
    {
        return [$this->form($details)->handleRequest($request), Fields::of($request)];
    }

    private function rows(Request $request, Fields $fields, ItemDetails $details, Problems $problems): void
    {
        ItemRows::read($fields, $details, $problems);
        $details->picture = $problems->attempt(
            'picture',
            static fn (): ?string => BroughtFile::in($request, 'picture'),
        );
        foreach ($problems->all() as $place => $reason) {
            $fields->refuse($place, $reason);
        }
    }

    /** @return FormInterface<mixed> */
    private function form(ItemDetails $details): FormInterface
    {
        return $this->forms->of(ItemType::class, $details);
    }

    /**
     * The rows as they would have been typed.
     *
     * @return array<string, mixed>
     */
    private function typedOf(ItemDetails $details, ?Item $item): array
    {
        $typed = ['pack_name' => [], 'pack_quantity' => [], 'pack_gtin' => [], 'stocked' => [], 'bin' => []];
        foreach ($details->packs as $i => $pack) {
            $typed['pack_name'][$i] = $pack->name;
            $typed['pack_quantity'][$i] = Format::plain($pack->quantity);
            $typed['pack_gtin'][$i] = $pack->gtin?->short() ?? '';
        }
        $places = null === $item
            ? []
            : $this->entities->getRepository(Stocking::class)->findBy(['item' => $item]);
        foreach ($places as $place) {
            $typed['stocked'][$place->site->id] = '1';
            $typed['bin'][$place->site->id] = (string) ($place->bin->id ?? '');
        }
        if (null === $item && 1 === count($this->sites->all())) {
            $typed['stocked'][$this->sites->all()[0]->id] = '1';
        }

        return $typed;
    }

    /**
     * @param FormInterface<mixed>    $form
     * @param array<array-key, mixed> $typed rows as they were typed
     */
    private function page(?Item $item, FormInterface $form, array $typed, Fields $fields): Response
    {
        return $this->render(
            'items/edit.html.twig',
            [
                'item' => $item,
                'form' => $form->createView(),
                'typed' => $typed,
                'fields' => $fields,
                'categories' => $this->categories->all(),
                'sites' => $this->sites->all(),
                'units' => Unit::cases(),
                'booked' => null !== $item && $this->uses->isBooked($item->id),
                'used' => null !== $item && $this->uses->isUsed($item->id),
            ],
            new Response(status: $form->isSubmitted() ? 422 : 200),
        );
    }

    private function find(string $code): Item
    {
        return $this->entities->getRepository(Item::class)->findOneBy(['code' => $code])
            ?? throw $this->createNotFoundException(sprintf('There is no item %s.', $code));
    }
}
