<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Suppliers;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Sourcing\BreakBasis;
use TallBarrel\Core\Sourcing\BreakKind;
use TallBarrel\Core\Sourcing\ChainedDiscounts;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Desk\Drawing\PriceLine;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Offer\OfferPrices;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Supplier;

/** One offer: all that a supplier asks for an item, what it cost before, and who else sells it. */
#[Route('/suppliers/{code}/offers')]
final class OfferController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly OfferPrices $prices,
        private readonly Audit $audit,
        private readonly ClockInterface $clock,
        private readonly Connection $connection,
    ) {
    }

    #[Route('/new', name: 'offer_new', methods: ['GET']), IsGranted('ROLE_BUY')]
    public function blank(string $code, Request $request): Response
    {
        return $this->page($this->supplier($code), null, Fields::query($request));
    }

    #[Route('/new', name: 'offer_begin', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function begin(string $code, Request $request, #[CurrentUser] Person $person): Response
    {
        $supplier = $this->supplier($code);
        $fields = Fields::of($request);
        $item = $this->entities
            ->getRepository(Item::class)
            ->findOneBy(['code' => trim(explode(' · ', $fields->text('item'))[0])]);
        $pack = mb_strtolower($fields->text('pack', 30)) ?: 'piece';
        if (null === $item) {
            $fields->refuse('item', sprintf('There is no item “%s”; type its code.', $fields->text('item')));
        } elseif (
            null !==
            ($there = $this->entities
                ->getRepository(Offer::class)
                ->findOneBy(['supplier' => $supplier, 'item' => $item, 'packName' => $pack]))
        ) {
            $fields->refuse(
                'pack',
                sprintf(
                    'They offer it by the %s already, as %s.',
                    $pack,
                    $there->supplierCode() ?: 'an offer without a code',
                ),
            );
        } else {
            $offer = $fields->attempt(
                'content',
                fn (): Offer => new Offer(
                    $supplier,
                    $item,
                    $fields->text('supplier_code', 40),
                    $pack,
                    $this->content($item, $fields),
                ),
            );
            if (null !== $offer) {
                $prices = $fields->attempt('prices', fn (): PriceBreaks => $this->typedPrices($fields));
                $this->apply($offer, $fields);
                if (null !== $prices && $fields->isGood()) {
                    $offer->price($prices);
                    $this->entities->persist($offer);
                    $this->audit->note($person, 'supplier '.$code, sprintf('Offer of %s added', $item->code));
                    $this->entities->flush();
                    $this->addFlash('fine', sprintf('%s can be bought from %s.', $item->name(), $supplier->name()));

                    return $this->redirectToRoute('offer', ['code' => $code, 'id' => $offer->id]);
                }
            }
        }

        return $this->page($supplier, null, $fields);
    }

    #[Route('/{id}', name: 'offer', requirements: ['id' => '\d+'], methods: ['GET'])]
    public function show(string $code, int $id): Response
    {
        $offer = $this->find($code, $id);

        return $this->page($offer->supplier, $offer, Fields::none());
    }

    #[Route('/{id}', name: 'offer_save', requirements: ['id' => '\d+'], methods: ['POST']), IsGranted('ROLE_BUY')]
    public function save(string $code, int $id, Request $request, #[CurrentUser] Person $person): Response
    {
        $offer = $this->find($code, $id);
        $fields = Fields::of($request);
        $today = $this->clock->now()->setTime(0, 0);
        if ((int) $fields->text('version') !== $offer->version()) {
            $fields->refuse(
                'offer',
                'Somebody changed this offer while you were typing. Your entries are still in the fields; look at '.
                    'them once more and save again.',
            );
        } else {
            $prices = $fields->attempt('prices', fn (): PriceBreaks => $this->typedPrices($fields));
            $from = $fields->day('prices_from', $fields->text('prices_from')) ?? $today;
            $before = $offer->listPrices();
            $this->apply($offer, $fields);
            if (
                null !== $prices
                && $fields->isGood()
                && [
                    $before->label(),
                    $before->kind,
                    $before->basis,
                ] !== [$prices->label(), $prices->kind, $prices->basis]
            ) {
                $this->prices->change($offer, $prices, $from, $today, 'by hand, '.$person->firstName());
                $this->audit->note(
                    $person,
                    'supplier '.$code,
                    sprintf(
                        'Price of %s from %s to %s, from %s',
                        $offer->item->code,
                        $before->label(),
                        $prices->label(),
                        $from->format('j M Y'),
                    ),
                );
            }
        }
        if (!$fields->isGood()) {
            $this->entities->clear();
            $offer = $this->find($code, $id);

            return $this->page($offer->supplier, $offer, $fields);
        }
        $this->entities->flush();
        $this->addFlash('fine', sprintf('The offer of %s is saved.', $offer->item->name()));

        return $this->redirectToRoute('offer', ['code' => $code, 'id' => $id]);
    }

    /** All but the prices. */
    private function apply(Offer $offer, Fields $fields): void
    {
        $minimum = $fields->quantity('minimum', $fields->text('minimum')) ?? BigDecimal::one();
        $multiple = $fields->quantity('multiple', $fields->text('multiple')) ?? BigDecimal::one();
        $fields->apply(
            'content',
            fn () => $offer->sellBy(
                BuyingRule::of(
                    Pack::of($offer->packName, $this->content($offer->item, $fields)),
                    $minimum,
                    $multiple,
                    '1' === $fields->text('split'),
                ),
            ),
        );
        $unit = $fields->text('content_unit', 3);
        $fields->apply(
            'outer_packs',
            fn () => $offer->describe(
                $fields->text('description', 160),
                '' === $unit || $unit === $offer->item->unit->value ? '' : $fields->text('content', 20).' '.$unit,
                $fields->text('outer_packs', 120),
            ),
        );
        $offer->recode($fields->text('supplier_code', 40));
        $fields->apply(
            'discounts',
            fn () => $offer->discount(ChainedDiscounts::read($fields->text('discounts', 40), $fields->numerals)),
        );
        $lead = $this->whole($fields, 'lead_days', 'days', 365) ?? $offer->leadDays();
        $rank = $this->whole($fields, 'rank', 'place', 99) ?? $offer->rank();
        [$from, $until] = [
            $fields->day('valid_from', $fields->text('valid_from')),
            $fields->day('valid_until', $fields->text('valid_until')),
        ];
        $fields->apply('valid_until', fn () => $offer->promise($lead, max(1, $rank), $until, $from));
        $duty = $fields->price('duty_percent', $fields->text('duty_percent')) ?? BigDecimal::zero();
        $fields->apply(
            'tariff_number',
            fn () => $offer->comesFrom($fields->text('origin', 2), $fields->text('tariff_number', 14), $duty),
        );
        $offer->inspect('1' === $fields->text('inspected'));
        $offer->block('1' === $fields->text('blocked'));
        $rise = $fields->price('rise_percent', $fields->text('rise_percent'));
        $on = $fields->day('rise_on', $fields->text('rise_on'));
        if ((null === $rise) !== (null === $on)) {
            $fields->refuse(
                null === $rise ? 'rise_percent' : 'rise_on',
                'An announced rise needs both a percentage and a day.',
            );
        }
        $offer->announce($rise, $on);
    }

    /** @throws InvalidValue */
    private function content(Item $item, Fields $fields): BigDecimal
    {
        $typed = str_replace(',', '.', $fields->text('content', 20));
        if (1 !== preg_match('/^\d{1,9}(\.\d{1,6})?$/', $typed)) {
            throw InvalidValue::notANumber($fields->text('content', 20), 'what one pack holds, such as 12');
        }
        $unit = $fields->text('content_unit', 3);

        return '' === $unit
            ? BigDecimal::of($typed)
            : $item->unit->amountOf(BigDecimal::of($typed), Unit::fromCode($unit));
    }

    /** @throws InvalidValue */
    private function typedPrices(Fields $fields): PriceBreaks
    {
        return PriceBreaks::read(
            $fields->text('prices', 200),
            BreakKind::tryFrom($fields->text('break_kind')) ?? BreakKind::AllUnits,
            BreakBasis::tryFrom($fields->text('break_basis')) ?? BreakBasis::Quantity,
            $fields->numerals,
        );
    }

    private function whole(Fields $fields, string $name, string $what, int $most): ?int
    {
        $typed = $fields->text($name, 4);
        if ('' !== $typed && (1 !== preg_match('/^\d{1,3}$/', $typed) || (int) $typed > $most)) {
            $fields->refuse($name, sprintf('“%s” is not a number of %s up to %d.', $typed, $what, $most));
        }

        return '' === $typed ? null : (int) $typed;
    }

    private function page(Supplier $supplier, ?Offer $offer, Fields $fields): Response
    {
        $history = null === $offer ? [] : $this->prices->of($offer);
        $item =
            null !== $offer
                ? $offer->item
                : $this->entities
                    ->getRepository(Item::class)
                    ->findOneBy(['code' => trim(explode(' · ', $fields->text('item'))[0])]);
        /** @var list<array{day: string, price: string, number: string, packs: string}> $paid */
        $paid =
            null === $offer
                ? []
                : $this->connection->fetchAllAssociative(
                    'SELECT DATE(o.sent_at) day, l.price, o.number, l.packs FROM order_line l
                        JOIN purchase_order o ON o.id = l.order_id WHERE l.offer_id = ? AND o.sent_at IS NOT NULL
                        ORDER BY o.sent_at DESC LIMIT 40',
                    [$offer->id],
                );

        return $this->render(
            'suppliers/offer.html.twig',
            [
                'supplier' => $supplier,
                'offer' => $offer,
                'item' => $item,
                'fields' => $fields,
                'units' => $item?->unit->convertible() ?? Unit::cases(),
                'unitPrices' => null === $offer
                        ? []
                        : array_map(
                            static fn (array $step): array => [
                                $step['from']->multipliedBy($offer->rule()->pack->content),
                                $step['price']->toFloat() / $offer->rule()->pack->content->toFloat(),
                            ],
                            $offer->prices()->byPacks(),
                        ),
                'history' => $history,
                'paid' => $paid,
                'line' => null === $offer
                        ? null
                        : PriceLine::of($history, $offer->listPrices(), $paid, $this->clock->now()->setTime(0, 0)),
                'others' => null === $item
                        ? []
                        : array_values(
                            array_filter(
                                $this->entities
                                    ->getRepository(Offer::class)
                                    ->findBy(['item' => $item], ['rank' => 'ASC']),
                                static fn (Offer $other): bool => $other !== $offer,
                            ),
                        ),
                'items' => null !== $offer
                        ? []
                        : $this->connection->fetchFirstColumn(
                            "SELECT CONCAT(code, ' · ', name) FROM item WHERE service = 0 ORDER BY code LIMIT 2000",
                        ),
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    private function supplier(string $code): Supplier
    {
        return $this->entities->getRepository(Supplier::class)->findOneBy(['code' => $code]) ??
            throw $this->createNotFoundException(sprintf('There is no supplier %s.', $code));
    }

    private function find(string $code, int $id): Offer
    {
        $offer = $this->entities->find(Offer::class, $id);

        return null !== $offer && $offer->supplier->code === $code
            ? $offer
            : throw $this->createNotFoundException('There is no such offer.');
    }
}
