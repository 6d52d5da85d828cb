<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Form\FormInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Problems;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\Form\Forms;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Settle\BookPeriods;
use TallBarrel\Work\Keeping\RateFeed;

/** What money, stock and exchanging cost the business, and the exchange rates. */
#[Route('/settings/costs')]
#[AboutMoney]
final class CostRatesController extends AbstractController
{
    public function __construct(
        private readonly CurrentBusiness $business,
        private readonly Rates $rates,
        private readonly BookPeriods $periods,
        private readonly ClockInterface $clock,
        private readonly Forms $forms,
    ) {
    }

    #[Route('', name: 'cost_rates', methods: ['GET'])]
    public function show(): Response
    {
        return $this->page($this->form());
    }

    #[Route('', name: 'cost_rates_save', methods: ['POST']), IsGranted('ROLE_IMPORT')]
    public function save(Request $request, EntityManagerInterface $entities): Response
    {
        $entry = new CostRatesEntry($this->business->get());
        $form = $this->form($entry)->handleRequest($request);
        Forms::attempt($form, function (Problems $problems) use ($entry): void {
            $business = $this->business->get();
            if ($problems->areNone() && null !== $entry->money && null !== $entry->exchange) {
                $problems->apply('money', static fn () => $business->reckonWith($entry->money, $entry->exchange));
            }
            $closed = $entry->valuing === $business->valuing() ? null : $this->periods->last();
            if (null !== $closed) {
                $problems->refuse('valuing', sprintf(
                    'The books of %s are closed, with the stock %s: it stays so.',
                    $closed->month,
                    $business->valuing()->words(),
                ));
            }
            if ($problems->areNone()) {
                $business->valueBy($entry->valuing);
            }
            [$percent, $amount] = [$entry->handlingPercent, $entry->handlingAmount];
            if ($problems->areNone() && null !== $percent && null !== $amount) {
                $problems->apply(
                    'handlingPercent',
                    static fn () => $business->expectCharges($entry->expects, $percent, $amount),
                );
            }
        });
        if (!$form->isSubmitted() || !$form->isValid()) {
            return $this->page($form);
        }
        $entities->flush();
        $this->addFlash('fine', 'Saved; every comparison counts with it from now on.');

        return $this->redirectToRoute('cost_rates');
    }

    /** @return FormInterface<mixed> */
    private function form(?CostRatesEntry $entry = null): FormInterface
    {
        $business = $this->business->get();
        $options = ['currency' => $business->homeCurrency()->code];

        return $this->forms->of(CostRatesType::class, $entry ?? new CostRatesEntry($business), $options);
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

    /** @param FormInterface<mixed> $form */
    private function page(FormInterface $form): Response
    {
        return $this->render(
            'settings/cost_rates.html.twig',
            [
                'business' => $this->business->get(),
                'rates' => $this->rates->daysOn($this->clock->now()),
                'history' => $this->rates->history($this->clock->now()->modify('-21 days')),
                'form' => $form->createView(),
            ],
            new Response(status: $form->isSubmitted() ? 422 : 200),
        );
    }
}
