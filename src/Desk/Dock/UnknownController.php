<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Dock;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Store\Dock\UnknownDeliveries;
use TallBarrel\Store\Dock\UnknownDelivery;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Work\Receiving\PlaceUnknown;

/** What stands at the dock and belongs to no order that anybody knows of. */
#[Route('/dock/unknown')]
final class UnknownController extends AbstractController
{
    private const DECIDED = 30;
    private const ENDED = 60;

    public function __construct(
        private readonly UnknownDeliveries $unknown,
        private readonly PlaceUnknown $place,
        private readonly Orders $orders,
        private readonly Sites $sites,
        private readonly Shell $shell,
    ) {
    }

    #[Route('', name: 'unknown', methods: ['GET'])]
    public function list(Request $request): Response
    {
        return $this->page(Fields::query($request));
    }

    #[Route('', name: 'unknown_note', methods: ['POST']), IsGranted('ROLE_RECEIVE')]
    public function note(Request $request, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $site = $this->sites->find((int) $fields->text('site')) ?? $this->sites->all()[0];
        $packages = $fields->quantity('packages', $fields->text('packages', 12) ?: '1');
        if (null !== $packages && $packages->strippedOfTrailingZeros()->getScale() > 0) {
            $fields->refuse('packages', sprintf('%s packages; expected a whole number.', $packages));
        }
        if ($fields->isGood() && null !== $packages) {
            $this->place->note(
                $site,
                $fields->text('what', 300),
                $fields->text('from', 80),
                $packages->isGreaterThan(\PHP_INT_MAX) ? \PHP_INT_MAX : $packages->toInt(),
                $fields->text('note', 40),
                $fields->text('carrier', 60),
                $person,
                $fields->problems,
            );
        }
        if (!$fields->isGood()) {
            return $this->page($fields);
        }
        $this->addFlash('fine', 'Noted. It waits here until somebody knows what it is.');

        return $this->redirectToRoute('unknown');
    }

    /** It is counted as the delivery of an order. */
    #[Route('/{id}/place', name: 'unknown_place', requirements: ['id' => '\d+'], methods: ['POST']),
        IsGranted('ROLE_RECEIVE'),]
    public function place(int $id, Request $request, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        try {
            $delivery = $this->place->place($this->find($id), (int) $fields->text('order'), $person, $fields->problems);
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());

            return $this->redirectToRoute('unknown');
        }
        if (null === $delivery) {
            $this->addFlash('short', implode(' ', $fields->errors()));

            return $this->redirectToRoute('unknown');
        }

        return $this->redirectToRoute('delivery', ['id' => $delivery->id]);
    }

    #[Route('/{id}/away', name: 'unknown_away', requirements: ['id' => '\d+'], methods: ['POST']),
        IsGranted('ROLE_RECEIVE'),]
    public function away(int $id, Request $request): Response
    {
        try {
            $this->place->sendAway($this->find($id), Fields::of($request)->text('because', 200));
            $this->addFlash('fine', 'It is noted that it was sent away.');
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }

        return $this->redirectToRoute('unknown');
    }

    private function find(int $id): UnknownDelivery
    {
        return $this->unknown->find($id) ?? throw $this->createNotFoundException('Nothing like that waits here.');
    }

    private function page(Fields $fields): Response
    {
        $site = $this->shell->site();

        return $this->render(
            'dock/unknown.html.twig',
            [
                'fields' => $fields,
                'site' => $site,
                'waiting' => $this->unknown->waiting($site),
                'decided' => $this->unknown->decided($site, self::DECIDED),
                'orders' => $this->orders->open(),
                'ended' => $this->orders->ended(self::ENDED),
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }
}
