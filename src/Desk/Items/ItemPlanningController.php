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
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Problems;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\Form\Forms;
use TallBarrel\Desk\Shell\SeenSites;
use TallBarrel\Desk\Stock\ItemPage;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Site;
use TallBarrel\Work\Planning\AdjustForecast;
use TallBarrel\Work\Planning\JudgeWeek;
use TallBarrel\Work\Planning\SetItemPolicy;
use TallBarrel\Work\Planning\TellOfItem;

/** What a person tells planning about one item. Each change plans the item anew at once. */
#[Route('/items/{code}/planning', requirements: ['code' => '.+'], priority: 2), IsGranted('ROLE_BUY')]
final class ItemPlanningController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Forms $forms,
        private readonly ItemPage $page,
    ) {
    }

    /** All that can be told: part of the item's page once asked for; without a script all of its page. */
    #[Route('', name: 'item_planning', methods: ['GET'])]
    public function show(string $code, Request $request, SeenSites $seen): Response
    {
        $item = $this->item($code);
        $at = $request->query->getString('site');
        if (!$request->headers->has('HX-Request')) {
            return $this->render('stock/item.html.twig', $this->page->of($item, '' === $at ? null : $at, []));
        }
        $site = array_column($seen->sites(), null, 'code')[$at] ?? null;

        return $this->render(
            'stock/_planning.html.twig',
            ['item' => $item, 'forms' => $this->page->planningForms($item, $site)],
        );
    }

    /** Its own policy, or that of its class. */
    #[Route('/policy', name: 'item_policy', methods: ['POST'])]
    public function policy(
        string $code,
        Request $request,
        SetItemPolicy $set,
        #[CurrentUser] Person $person,
    ): Response {
        $item = $this->item($code);
        $at = Fields::of($request)->text('where', 9);
        $site = ctype_digit($at) ? $this->entities->find(Site::class, (int) $at) : null;
        $entry = $this->page->policyEntry($item, $site);
        $own = $entry->policy();
        $form = $this->page->policyForm($item, $site, $entry)->handleRequest($request);
        if (!$this->isGranted('ROLE_APPROVE')) {
            // Who may approve says whether a lower price may take more than is wanted.
            $entry->beyond = $own->beyond ?? false;
        }
        Forms::attempt($form, static function (Problems $problems) use ($set, $item, $entry, $person): void {
            $policy = $problems->attempt('amount', $entry->policy(...));
            if ($problems->areNone()) {
                $set->set($item, $policy, $person, $entry->where);
            }
        });

        return $form->isValid()
            ? $this->done($item, 'The policy holds.', $entry->where?->code)
            : $this->refused($this->page->of($item, sent: ['policy' => $form]));
    }

    /** Staple, shelf life, an item it sells like. */
    #[Route('/facts', name: 'item_facts', methods: ['POST'])]
    public function facts(string $code, Request $request, TellOfItem $tell, #[CurrentUser] Person $person): Response
    {
        $item = $this->item($code);
        $entry = new ItemFactsEntry($item);
        $form = $this->forms->of(ItemFactsType::class, $entry)->handleRequest($request);
        Forms::attempt(
            $form,
            static fn (Problems $problems) => $tell->tell(
                $item,
                $entry->staple,
                $entry->shelf,
                $entry->like,
                $entry->factor,
                $person,
                $problems,
            ),
        );

        return $form->isValid()
            ? $this->done($item, 'Saved, and planned again.')
            : $this->refused($this->page->of($item, sent: ['facts' => $form]));
    }

    #[Route('/adjust', name: 'item_adjust', methods: ['POST'])]
    public function adjust(
        string $code,
        Request $request,
        AdjustForecast $adjust,
        #[CurrentUser] Person $person,
    ): Response {
        $item = $this->item($code);
        $entry = new AdjustmentEntry();
        $form = $this->forms->of(AdjustmentType::class, $entry)->handleRequest($request);
        Forms::attempt($form, static function (Problems $problems) use ($adjust, $item, $entry, $person): void {
            if ($problems->areNone() && null !== $entry->percent && null !== $entry->until) {
                $percent = $entry->percent->toFloat();
                $problems->apply(
                    'percent',
                    fn () => $adjust->adjust($item, $percent, $entry->until, $entry->reason, $person),
                );
            }
        });

        return $form->isValid()
            ? $this->done($item, 'The forecast is adjusted.')
            : $this->refused($this->page->of($item, sent: ['adjust' => $form]));
    }

    #[Route('/adjust/{id}/end', name: 'item_adjust_end', requirements: ['id' => '\d+'], methods: ['POST'])]
    public function endAdjustment(
        string $code,
        int $id,
        AdjustForecast $adjust,
        #[CurrentUser] Person $person,
    ): Response {
        $item = $this->item($code);
        $adjust->end($item, $id, $person);

        return $this->done($item, 'The adjustment is over.');
    }

    /** A week of history counts as it is, or is left out. */
    #[Route('/week', name: 'item_week', methods: ['POST'])]
    public function week(string $code, Request $request, JudgeWeek $judge, #[CurrentUser] Person $person): Response
    {
        $item = $this->item($code);
        $fields = Fields::of($request);
        $site = $this->entities->getRepository(Site::class)->findOneBy(['code' => $fields->text('site')]);
        $day = $fields->day('day', $fields->text('day'));
        $fields->apply('day', static function () use ($judge, $item, $site, $day, $fields, $person): void {
            if (null === $site || null === $day) {
                throw InvalidValue::because('Choose a day of a week that is over.');
            }
            $judge->judge($item, $site, $day, 'keep' === $fields->text('verdict'), $person);
        });
        if (!$fields->isGood()) {
            $this->addFlash('short', implode(' ', $fields->errors()));

            return $this->redirectToRoute('item', ['code' => $item->code]);
        }

        return $this->done($item, 'The history is read anew.', $site?->code);
    }

    private function done(Item $item, string $words, ?string $site = null): Response
    {
        $this->addFlash('fine', $words);

        return $this->redirectToRoute('item', ['code' => $item->code] + (null === $site ? [] : ['site' => $site]));
    }

    /** @param array<string, mixed> $page */
    private function refused(array $page): Response
    {
        return $this->render('stock/item.html.twig', $page, new Response(status: 422));
    }

    private function item(string $code): Item
    {
        return $this->page->find($code) ??
            throw $this->createNotFoundException(sprintf('There is no item %s.', $code));
    }
}
