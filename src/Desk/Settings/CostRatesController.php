<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Work\Keeping\RateFeed;

/** What money, stock and exchanging cost the business, and the exchange rates. */
#[Route('/settings/costs')]
final class CostRatesController extends AbstractController
{
    public function __construct(
        private readonly CurrentBusiness $business,
        private readonly Rates $rates,
        private readonly ClockInterface $clock,
    ) {
    }

    #[Route('', name: 'cost_rates', methods: ['GET'])]
    public function show(): Response
    {
        return $this->page(Fields::none());
    }

    #[Route('', name: 'cost_rates_save', methods: ['POST']), IsGranted('ROLE_IMPORT')]
    public function save(Request $request, EntityManagerInterface $entities): Response
    {
        $fields = Fields::of($request);
        $money = $fields->price('money', $fields->text('money')) ?? BigDecimal::zero();
        $exchange = $fields->price('exchange', $fields->text('exchange')) ?? BigDecimal::zero();
        if ($fields->isGood()) {
            $fields->apply('money', fn () => $this->business->get()->reckonWith($money, $exchange));
        }
        if (!$fields->isGood()) {
            return $this->page($fields);
        }
        $entities->flush();
        $this->addFlash('fine', 'Saved; every comparison counts with it from now on.');

        return $this->redirectToRoute('cost_rates');
    }

    #[Route('/rates', name: 'rates_fetch', methods: ['POST']), IsGranted('ROLE_IMPORT')]
    public function fetch(RateFeed $feed): Response
    {
        $count = $this->rates->take($feed->daily($this->clock->now()), $feed->name());
        $this->addFlash(
            $count > 0 ? 'fine' : 'watch',
            $count > 0 ? sprintf('%d rates of today are in, from %s.', $count, $feed->name()) : 'There is nothing new.',
        );

        return $this->redirectToRoute('cost_rates');
    }

    private function page(Fields $fields): Response
    {
        return $this->render(
            'settings/cost_rates.html.twig',
            [
                'business' => $this->business->get(),
                'rates' => $this->rates->daysOn($this->clock->now()),
                'history' => $this->rates->history($this->clock->now()->modify('-21 days')),
                'fields' => $fields,
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }
}
