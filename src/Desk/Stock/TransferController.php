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
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Work\Receiving\MoveStock;

/** Moves stock from a site that can spare it. */
final class TransferController extends AbstractController
{
    #[Route('/transfer', name: 'transfer', methods: ['POST']), IsGranted('ROLE_RECEIVE')]
    public function transfer(
        Request $request,
        MoveStock $transfers,
        EntityManagerInterface $entities,
        Sites $sites,
        #[CurrentUser] Person $person,
    ): Response {
        $fields = Fields::of($request);
        $item =
            $entities->getRepository(Item::class)->findOneBy(['code' => $fields->text('item')]) ??
            throw $this->createNotFoundException('There is no such item.');
        [$from, $to] = array_map(static fn (string $name) => $sites->find((int) $fields->text($name)), ['from', 'to']);
        $quantity = $fields->quantity('quantity', $fields->text('quantity'));
        $key = $fields->text('key', 50);
        try {
            if (null === $from || null === $to || null === $quantity || '' === $key) {
                throw new Refused($fields->errors()['quantity'] ?? 'Say how many to move, from where and to where.');
            }
            $number = $transfers->move($item, $from, $to, $quantity, $person, 'transfer-'.$key);
            $this->addFlash(
                'fine',
                null === $number
                    ? 'That was moved already.'
                    : sprintf(
                        '%s: %s %s of %s moved from %s to %s.',
                        $number,
                        $quantity->strippedOfTrailingZeros(),
                        $item->unit->symbol(),
                        $item->code,
                        $from->name(),
                        $to->name(),
                    ),
            );
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }

        return 'reorder' === $fields->text('back')
            ? $this->redirectToRoute('reorder')
            : $this->redirectToRoute('item', ['code' => $item->code]);
    }
}
