<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settle;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\ConsignedGoods;
use TallBarrel\Work\Settling\TakeOverConsigned;

/** Goods that suppliers left with us: theirs until they are used, or until a day. */
#[Route('/settle/consigned'), AboutMoney]
final class ConsignedController extends AbstractController
{
    public function __construct(
        private readonly ConsignedGoods $goods,
        private readonly TakeOverConsigned $consigned,
    ) {
    }

    #[Route('', name: 'consigned', methods: ['GET'], priority: 3)]
    public function show(): Response
    {
        return $this->render('settle/consigned.html.twig', [
            'found' => $this->consigned->found(),
            'taken' => $this->goods->taken(),
            'worth' => $this->goods->worth(),
        ]);
    }

    #[Route('', name: 'consigned_take', methods: ['POST'], priority: 3), IsGranted('ROLE_INVOICE')]
    public function take(#[CurrentUser] Person $by): Response
    {
        $taken = $this->consigned->take($by);
        $this->addFlash([] === $taken ? 'watch' : 'fine', [] === $taken
            ? 'Nothing of it was used, and nobody’s day came.'
            : 'What was used is ours now; its invoice is expected.');

        return $this->redirectToRoute('consigned');
    }
}
