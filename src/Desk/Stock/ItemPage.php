<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Stock;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Form\FormInterface;
use Symfony\Component\Form\FormView;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Desk\Drawing\Barrel;
use TallBarrel\Desk\Drawing\DemandChart;
use TallBarrel\Desk\Drawing\LeadTimeStrip;
use TallBarrel\Desk\Items\AdjustmentEntry;
use TallBarrel\Desk\Items\AdjustmentType;
use TallBarrel\Desk\Items\ItemFactsEntry;
use TallBarrel\Desk\Items\ItemFactsType;
use TallBarrel\Desk\Items\ItemPolicyEntry;
use TallBarrel\Desk\Items\ItemPolicyType;
use TallBarrel\Desk\Reorder\ReorderBoard;
use TallBarrel\Desk\Shell\Form\Forms;
use TallBarrel\Desk\Shell\SeenSites;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Desk\Talk\Talk;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Business\ReasonKind;
use TallBarrel\Store\Business\Reasons;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Offer\OfferName;
use TallBarrel\Store\Offer\Offers;
use TallBarrel\Store\OneTrip;
use TallBarrel\Store\Order\OpenLines;
use TallBarrel\Store\Planning\ItemPolicy;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Store\Planning\SavedProposal;
use TallBarrel\Store\Planning\SitePolicy;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Store\Stock\InInspection;
use TallBarrel\Store\Stock\ItemFigures;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\StockList;
use TallBarrel\Store\Stock\StockPlace;
use TallBarrel\Store\Stock\StockState;

/** All an item's page shows. */
final readonly class ItemPage
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Offers $offers,
        private InInspection $inspected,
        private Proposals $proposals,
        private ReorderBoard $board,
        private Rates $rates,
        private Forms $forms,
        private Shell $shell,
        private SeenSites $seen,
        private Sites $sites,
        private Talk $talk,
        private ClockInterface $clock,
    ) {
    }

    /** Read with its own policy, where it has one. */
    public function find(string $code): ?Item
    {
        /** @var list<Item|ItemPolicy|SitePolicy|null> $found */
        $found = $this->entities
            ->createQuery(
                sprintf(
                    'SELECT i, k, p, q FROM %s i LEFT JOIN i.packs k LEFT JOIN %s p WITH p.item = i
                        LEFT JOIN %s q WITH q.item = i WHERE i.code = :code',
                    Item::class,
                    ItemPolicy::class,
                    SitePolicy::class,
                ),
            )
            ->setParameter('code', $code)
            ->getResult();

        return ($found[0] ?? null) instanceof Item ? $found[0] : null;
    }

    /**
     * @param string|null                              $site code of the site looked at; null for the one chosen above
     * @param array<string, FormInterface<mixed>>|null $sent what is told planning, as it was sent where something in
     *                                                       it is wrong; null where it is not asked for
     *
     * @return array<string, mixed>
     */
    public function of(Item $item, ?string $site = null, ?array $sent = null): array
    {
        $places = array_values(array_filter(
            $this->proposals->ofItem($item->id),
            fn (SavedProposal $place): bool => $this->seen->has($place->site->id),
        ));
        $site ??= $this->shell->site()->code ?? '';
        $shown =
            array_values(
                array_filter($places, static fn (SavedProposal $place): bool => $place->site->code === $site),
            )[0] ??
            ($places[0] ?? null);
        $today = $this->clock->now()->setTime(0, 0);
        $trip = new OneTrip();
        StockList::askOfItem($trip, $item->id, $today);
        OpenLines::askBySite($trip, $item->id);
        Reasons::askWords($trip, ReasonKind::Adjustment);
        $answers = $trip->answers($this->entities->getConnection());
        $figures = ItemFigures::in($answers);
        $held = $figures->held;
        $open = OpenLines::in($answers, $today);
        $inForce = $this->rates->allOn($today);
        $offers = [];
        $ofItem = $this->offers->ofItem($item);
        foreach ($ofItem as $offer) {
            $rate = $inForce[$offer->supplier->currency()->code] ?? null;
            $need = null === $shown ? 1 : max(1, (int) ceil($shown->forecast()->over(28)));
            $offers[] = [
                'offer' => $offer,
                'packs' => $offer->rule()->packsFor($need),
                'unitCost' => null === $rate ? null : $offer->at($rate)->unitCost($need),
                'need' => $need,
            ];
        }

        $evidence = $shown?->evidence($today);

        return [
            'item' => $item,
            'missing' => self::missing($item, $ofItem, [] !== $places || null === $this->proposals->lastRun()),
            'places' => array_map(static function (SavedProposal $place) use ($held, $open): array {
                $here = $held[$place->site->id] ?? 0.0;
                $coming = ($open[$place->item->id.':'.$place->site->id] ?? null)?->units()->toFloat() ?? 0.0;

                return [
                    'place' => $place,
                    'now' => ['held' => $here, 'coming' => $coming],
                    'barrel' => Barrel::of(
                        $here,
                        $coming,
                        $place->safetyStock,
                        $place->reorderPoint,
                        $place->orderUpTo,
                    ),
                ];
            }, $places),
            'shown' => null === $shown ? null : $this->board->why($shown, array_map(OfferName::of(...), $ofItem)),
            'demand' => null === $shown || null === $evidence
                    ? null
                    : DemandChart::of($evidence->sold, $evidence->marks, $shown->forecast(), $today),
            'leads' => null === $evidence ? null : LeadTimeStrip::of($evidence->met, $evidence->promisedDays),
            'forms' => null === $sent ? null : $this->planningForms($item, $shown?->site, $sent),
            'adjustments' => $figures->adjustments,
            'balances' => $this->standing($item, $figures->balances, $today),
            'moreLots' => count($figures->balances) > StockList::PLACES,
            'movements' => array_map(
                static fn (array $row): array => ['words' => MovementKind::from((string) $row['kind'])->words()] + $row,
                $this->seen->only($figures->movements),
            ),
            'right' => [
                'nonce' => bin2hex(random_bytes(8)),
                'reasons' => Reasons::wordsIn($answers),
                'places' => $this->places($item, array_slice($figures->balances, 0, StockList::PLACES)),
            ],
            'orders' => array_map(
                static fn (array $row): array => ['words' => OrderState::from((string) $row['state'])->words()] + $row,
                $this->seen->only($figures->orders),
            ),
            'offers' => $offers,
            'talk' => $this->talk->about('item', $item->code),
            'today' => $today,
        ];
    }

    /**
     * @param list<array<string, string|null>> $balances
     *
     * @return list<array<string, mixed>> those that may be seen; what is in inspection with the day it will be free
     */
    private function standing(Item $item, array $balances, \DateTimeImmutable $today): array
    {
        return array_map(function (array $row) use ($item, $today): array {
            $since = StockState::InInspection->value === $row['state']
                ? $this->inspected->since($item->id, (int) $row['place'], (string) $row['lot'])
                : null;

            return $row + ['free' => null === $since ? null : $this->inspected->freeOn($item->id, $since, $today)];
        }, array_slice($this->seen->only($balances), 0, StockList::PLACES));
    }

    /**
     * Where some of it stands, and the sites that stock it and have none: there some may be found.
     *
     * @param list<array<string, string|null>> $balances
     *
     * @return list<array{key: string, words: string, units: string}>
     */
    private function places(Item $item, array $balances): array
    {
        $places = $there = [];
        foreach ($balances as $row) {
            $site = $this->sites->find((int) $row['place']);
            $state = StockState::from((string) $row['state']);
            if (null === $site || !$this->seen->has($site->id) || StockState::OnItsWay === $state) {
                continue;
            }
            $place = new StockPlace($site, $state, (string) $row['lot']);
            $places[] = ['key' => $place->key(), 'words' => $place->words(), 'units' => (string) $row['held']];
            $there[$site->id] = true;
        }
        foreach ($item->isLotTracked() ? [] : $this->seen->sites() as $site) {
            if (!isset($there[$site->id])) {
                $place = new StockPlace($site, StockState::Available, '');
                $places[] = ['key' => $place->key(), 'words' => $place->words(), 'units' => '0'];
            }
        }

        return $places;
    }

    /**
     * What stands in the way of ordering it.
     *
     * @param list<Offer> $offers
     *
     * @return list<string>
     */
    private static function missing(Item $item, array $offers, bool $isPlanned): array
    {
        $missing = [];
        if ($item->isStocked() && !$isPlanned) {
            $missing[] = 'no site stocks it';
        }
        if ([] === $offers) {
            $missing[] = 'nobody sells it';
        } elseif ('' === $offers[0]->supplierCode() && !$offers[0]->supplier->isArchived()) {
            $missing[] = sprintf('no code of %s', $offers[0]->supplier->name());
        }

        return $missing;
    }

    /**
     * @param array<string, FormInterface<mixed>> $sent those of them that were sent
     *
     * @return array<string, FormView>
     */
    public function planningForms(Item $item, ?Site $site, array $sent = []): array
    {
        $sent += [
            'policy' => $this->policyForm($item, $site),
            'adjust' => $this->forms->of(AdjustmentType::class, new AdjustmentEntry()),
            'facts' => $this->forms->of(ItemFactsType::class, new ItemFactsEntry($item)),
        ];

        return array_map(static fn (FormInterface $form): FormView => $form->createView(), $sent);
    }

    /** @return FormInterface<mixed> */
    public function policyForm(Item $item, ?Site $site, ?ItemPolicyEntry $entry = null): FormInterface
    {
        return $this->forms->of(ItemPolicyType::class, $entry ?? $this->policyEntry($item, $site), ['site' => $site]);
    }

    /** The policy at the site, else everywhere. */
    public function policyEntry(Item $item, ?Site $site): ItemPolicyEntry
    {
        // Read along with the item: where there is none, none is asked for again.
        $known = $this->entities->getUnitOfWork();
        $here = null === $site ? null
            : $known->tryGetById(['item' => $item->id, 'site' => $site->id], SitePolicy::class);
        $own = $known->tryGetById(['item' => $item->id], ItemPolicy::class);

        return $here instanceof SitePolicy
            ? new ItemPolicyEntry($here->policy(), $site)
            : new ItemPolicyEntry($own instanceof ItemPolicy ? $own->policy() : null);
    }
}
