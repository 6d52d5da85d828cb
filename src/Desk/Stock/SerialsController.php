<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Stock;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Stock\Serial;
use TallBarrel\Store\Stock\Serials;
use TallBarrel\Work\Receiving\FollowSerials;

/** The pieces of an item that have numbers of their own: where each came from, and where it went. */
#[Route('/items/{code}/serials', requirements: ['code' => '.+'], priority: 3)]
final class SerialsController extends AbstractController
{
    private const SHOWN = 300;

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Serials $serials,
        private readonly FollowSerials $follow,
    ) {
    }

    #[Route('', name: 'item_serials', methods: ['GET'])]
    public function list(string $code, Request $request): Response
    {
        return $this->page($this->item($code), trim($request->query->getString('words')), Fields::none());
    }

    /** Numbers of pieces that were here before, typed; or one that goes or comes back. */
    #[Route('', name: 'item_serials_act', methods: ['POST']), IsGranted('ROLE_RECEIVE')]
    public function act(string $code, Request $request, #[CurrentUser] Person $by): Response
    {
        $item = $this->item($code);
        $fields = Fields::of($request);
        $id = (int) $fields->text('serial', 9);
        try {
            match ($fields->text('do')) {
                'add' => $this->follow->add($item, $fields->text('numbers', 100_000), $by),
                'gone' => $this->follow->gone($this->find($item, $id), $fields->text('to', 80), $by),
                default => $this->follow->back($this->find($item, $id), $by),
            };
        } catch (Refused|InvalidValue $refused) {
            $fields->refuse('add' === $fields->text('do') ? 'numbers' : 'to', $refused->getMessage());
        }

        return $fields->isGood()
            ? $this->redirectToRoute('item_serials', ['code' => $item->code])
            : $this->page($item, '', $fields);
    }

    private function page(Item $item, string $words, Fields $fields): Response
    {
        return $this->render(
            'stock/serials.html.twig',
            [
                'item' => $item,
                'serials' => $this->serials->of($item, $words, self::SHOWN),
                'count' => $this->serials->count($item->id),
                'words' => $words,
                'most' => self::SHOWN,
                'fields' => $fields,
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    private function find(Item $item, int $id): Serial
    {
        $serial = $this->serials->find($id);

        return null !== $serial && $serial->item === $item
            ? $serial
            : throw $this->createNotFoundException('There is no such piece.');
    }

    private function item(string $code): Item
    {
        return $this->entities->getRepository(Item::class)->findOneBy(['code' => $code])
            ?? throw $this->createNotFoundException(sprintf('There is no item %s.', $code));
    }
}
