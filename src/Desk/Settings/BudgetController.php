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
use TallBarrel\Store\Business\CategoryBudget;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\MonthBudget;
use TallBarrel\Store\Item\Categories;
use TallBarrel\Store\Order\Budgets;
use TallBarrel\Work\Keeping\AskedBudget;
use TallBarrel\Work\Keeping\SetBudget;

/** What may be ordered, month by month, and what of it is spoken for. */
#[Route('/settings/budget')]
#[AboutMoney]
final class BudgetController extends AbstractController
{
    private const MONTHS_BACK = 3;
    private const MONTHS_AHEAD = 5;

    public function __construct(
        private readonly CurrentBusiness $business,
        private readonly Budgets $budgets,
        private readonly EntityManagerInterface $entities,
        private readonly ClockInterface $clock,
        private readonly Categories $categories,
        private readonly Forms $forms,
    ) {
    }

    #[Route('', name: 'budget', methods: ['GET'])]
    public function show(): Response
    {
        $entry = $this->entry();

        return $this->page($entry, $this->forms->of(BudgetType::class, $entry));
    }

    #[Route('', name: 'budget_save', methods: ['POST']), IsGranted('ROLE_APPROVE')]
    public function save(Request $request, SetBudget $set): Response
    {
        $entry = $this->entry();
        $form = $this->forms->of(BudgetType::class, $entry)->handleRequest($request);
        Forms::attempt($form, static fn (Problems $problems) => $set->set($entry->asked(), $entry->was, $problems));
        if (!$form->isSubmitted() || !$form->isValid()) {
            return $this->page($entry, $form);
        }
        $this->addFlash('fine', 'Saved. Recalculate on Reorder to choose what fits it.');

        return $this->redirectToRoute('budget');
    }

    private function entry(): BudgetEntry
    {
        $known = [];
        foreach ($this->entities->getRepository(MonthBudget::class)->findAll() as $month) {
            $known[$month->month] = $month->amount();
        }
        $months = [];
        foreach (range(0, self::MONTHS_AHEAD) as $ahead) {
            $month = $this->clock->now()->modify(sprintf('first day of +%d months', $ahead))->format('Y-m');
            $months[$month] = $known[$month] ?? null;
        }

        $categories = array_fill_keys($this->categories->all(), null);
        foreach ($this->entities->getRepository(CategoryBudget::class)->findAll() as $category) {
            $categories[$category->category] = $category->amount();
        }
        $business = $this->business->get();

        return BudgetEntry::of(
            new AskedBudget($business->monthlyBudget(), $months, $categories, $business->budgetBasis()),
        );
    }

    /** @param FormInterface<mixed> $form */
    private function page(BudgetEntry $entry, FormInterface $form): Response
    {
        $now = $this->clock->now();

        return $this->render(
            'settings/budget.html.twig',
            [
                'uses' => $this->budgets->months(
                    $now,
                    $now->modify(sprintf('first day of -%d months', self::MONTHS_BACK)),
                    self::MONTHS_AHEAD,
                ),
                'now' => $now->format('Y-m'),
                'usual' => $this->business->get()->monthlyBudget(),
                'categories' => $entry->categoryFields(),
                'was' => $this->entry()->was,
                'byCategory' => $this->budgets->byCategory($now),
                'form' => $form->createView(),
            ],
            new Response(status: $form->isSubmitted() ? 422 : 200),
        );
    }
}
