<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\NestedPacks;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Sourcing\BreakBasis;
use TallBarrel\Core\Sourcing\BreakKind;
use TallBarrel\Core\Sourcing\ChainedDiscounts;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Offer\OfferPrices;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Supplier;

/** Offers, new or changed, each with its price breaks. */
final readonly class OfferImport implements ImportKind
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Codes $codes,
        private OfferPrices $prices,
        private ClockInterface $clock,
    ) {
    }

    public function name(): string
    {
        return 'offers';
    }

    public function title(): string
    {
        return 'Offers';
    }

    public function columns(): array
    {
        return [
            'supplier' => 'supplier code *',
            'item' => 'item code *',
            'supplier_code' => 'their code',
            'pack' => 'what they sell as one: case, each *',
            'content' => 'stock units in it *',
            'prices' => 'of one pack; with breaks: 1=9.30 40=8.97 *',
            'minimum' => 'fewest packs',
            'multiple' => 'packs in steps of',
            'split' => 'yes when they open a pack',
            'lead_days' => 'from order to delivery',
            'rank' => '1 is bought from first',
            'valid_until' => 'as 2027-03-31',
            'rise_percent' => 'announced price rise',
            'rise_on' => 'from which day',
            'description' => 'what they call it',
            'content_unit' => 'unit of the content if not ours, such as LBR',
            'outer_packs' => 'larger packs: layer=8 pallet=6',
            'break_kind' => 'all-units or incremental',
            'break_basis' => 'quantity or value',
            'discounts' => 'one after the other: 10 + 5',
            'valid_from' => 'as 2026-12-01',
            'origin' => 'country, as IE',
            'tariff_number' => 'customs, 4 to 10 digits',
            'duty_percent' => '',
            'inspected' => 'yes when looked at on arrival',
            'blocked' => 'yes when not to be bought',
            'manufacturer' => 'who makes it, if not they',
            'packing' => 'how it is to be packed',
            'consigned' => 'yes when it stays theirs in our stock',
            'consigned_days' => 'after which it is ours anyway',
        ];
    }

    public function sample(): array
    {
        return [
            [
                'VETRASOL',
                'JAR-340R',
                'VG-0340-R',
                'case',
                '12',
                '1=7.80 40=7.53',
                '1',
                '1',
                'no',
                '6',
                '1',
                '2027-03-31',
                '',
                '',
                '',
                '',
                'layer=8 pallet=6',
                'all-units',
                'quantity',
                '',
                '',
                'CZ',
                '70109045',
                '0',
                'no',
                'no',
                'Hutta Orlany',
                '',
                'no',
                '',
            ],
        ];
    }

    public function reader(): callable
    {
        $suppliers = $this->codes->suppliers();
        $items = $this->codes->items();
        $units = $this->codes->units();
        $seen = [];

        return static function (Row $row) use ($suppliers, $items, $units, &$seen): ?array {
            $supplier = $row->code('supplier', $suppliers, 'supplier');
            $item = $row->code('item', $items, 'item');
            $pack = $row->required('pack', 30);
            $content = $row->decimal('content');
            if (null === $content && !$row->has('content')) {
                $row->refuse('content', 'missing');
            }
            $stated = '';
            if (null !== $content && $row->has('content_unit') && null !== $item) {
                $stated = $content.' '.strtoupper($row->text('content_unit'));
                $content = $row->attempt(
                    'content_unit',
                    static fn (): BigDecimal => $units[$item]->amountOf(
                        $content,
                        Unit::fromText($row->text('content_unit')),
                    ),
                );
            }
            $rule =
                null === $content
                    ? null
                    : $row->attempt(
                        'content',
                        static fn (): BuyingRule => BuyingRule::of(
                            Pack::of($pack, $content),
                            $row->decimal('minimum') ?? 1,
                            $row->decimal('multiple') ?? 1,
                            $row->yes('split', false),
                        ),
                    );
            $prices = $row->attempt(
                'prices',
                static fn (): PriceBreaks => PriceBreaks::read(
                    $row->required('prices'),
                    self::kind($row),
                    self::basis($row),
                    $row->numerals,
                ),
            );
            $lead = $row->integer('lead_days', 0, 365) ?? 7;
            $rank = $row->integer('rank', 1, 99) ?? 1;
            $until = $row->day('valid_until');
            $key = $supplier.':'.$item.':'.strtolower($pack);
            if (isset($seen[$key])) {
                $row->refuse('item', sprintf('offered in line %d already', $seen[$key]));
            }
            $seen[$key] = $row->line;
            $code = $row->text('supplier_code', 40);
            [$rise, $on] = [$row->decimal('rise_percent', 2), $row->day('rise_on')];
            if ((null === $rise) !== (null === $on)) {
                $row->refuse(
                    null === $rise ? 'rise_percent' : 'rise_on',
                    'an announced rise needs both a percentage and a day',
                );
            }

            $from = $row->day('valid_from');
            if (null !== $from && null !== $until && $until < $from) {
                $row->refuse('valid_until', 'before it begins');
            }
            $row->attempt(
                'discounts',
                static fn (): ChainedDiscounts => ChainedDiscounts::read($row->text('discounts', 40), $row->numerals),
            );
            $row->attempt(
                'outer_packs',
                static fn (): ?NestedPacks => null === $rule
                    ? null
                    : NestedPacks::read($rule->pack, $row->text('outer_packs', 120)),
            );
            if ($row->has('origin') && 1 !== preg_match('/^[A-Za-z]{2}$/', $row->text('origin'))) {
                $row->refuse('origin', 'not a country code of two letters');
            }
            $duty = $row->decimal('duty_percent', 2);
            if (null !== $duty && $duty->isGreaterThan(200)) {
                $row->refuse('duty_percent', 'more than 200');
            }
            if (
                $row->has('tariff_number')
                && 1 !== preg_match('/^(\d{4}|\d{6}|\d{8}|\d{10})$/', $row->text('tariff_number'))
            ) {
                $row->refuse('tariff_number', 'not 4, 6, 8 or 10 digits');
            }
            $more = [
                'from' => $from,
                'description' => $row->text('description', 160),
                'stated' => $stated,
                'outer' => $row->text('outer_packs', 120),
                'discounts' => $row->text('discounts', 40),
                'origin' => $row->text('origin', 2),
                'tariff' => $row->text('tariff_number', 12),
                'duty' => $duty,
                'inspected' => $row->yes('inspected', false),
                'blocked' => $row->yes('blocked', false),
                'maker' => $row->text('manufacturer', 120),
                'packing' => $row->text('packing', 200),
                'consigned' => $row->has('consigned') ? $row->yes('consigned', false) : null,
                'theirs' => $row->integer('consigned_days', 1, 3650),
            ];
            if (null !== $more['theirs'] && true !== $more['consigned']) {
                $row->refuse('consigned_days', 'goods are theirs for so many days only where consigned says yes');
            }

            return $row->isGood()
                ? [$supplier, $item, $code, $pack, $rule, $prices, $lead, $rank, $until, $rise, $on, $more]
                : null;
        };
    }

    public function all(): iterable
    {
        /** @var iterable<Offer> $offers */
        $offers = $this->entities
            ->createQuery('SELECT o, s, i, b FROM '.Offer::class.' o JOIN o.supplier s JOIN o.item i LEFT JOIN
                o.breaks b
                WHERE s.archivedOn IS NULL AND i.archivedOn IS NULL ORDER BY s.code, i.code, o.id, b.fromPacks')
            ->getResult();
        foreach ($offers as $offer) {
            $rule = $offer->rule();
            $prices = $offer->listPrices();
            yield [
                $offer->supplier->code, $offer->item->code, $offer->supplierCode(), $offer->packName,
                Cell::number($rule->pack->content), $prices->label(), Cell::number($rule->minimum),
                Cell::number($rule->multiple), Cell::yes($rule->split), (string) $offer->leadDays(),
                (string) $offer->rank(), Cell::day($offer->validUntil()), Cell::number($offer->rise()[0] ?? null),
                Cell::day($offer->rise()[1] ?? null), $offer->description(), '', $offer->outerPacks(),
                $prices->kind->value,
                $prices->basis->value, $offer->discounts()->label(), Cell::day($offer->validFrom()), $offer->origin(),
                $offer->tariffNumber(), Cell::number($offer->dutyPercent()), Cell::yes($offer->isInspected()),
                Cell::yes($offer->isBlocked()), $offer->manufacturer(), $offer->packing(),
                Cell::yes($offer->isConsigned()),
                0 === $offer->consignedDays() ? '' : (string) $offer->consignedDays(),
            ];
        }
    }

    public function apply(iterable $rows, Person $person): void
    {
        $today = $this->clock->now()->setTime(0, 0);
        /**
         * @var array{int, int, string, string, BuyingRule, PriceBreaks, int, int, \DateTimeImmutable|null,
         *      BigDecimal|null, \DateTimeImmutable|null, array{from: \DateTimeImmutable|null, description: string,
         *      stated: string, outer: string, discounts: string, origin: string, tariff: string, duty: BigDecimal|null,
         *      inspected: bool, blocked: bool, maker: string, packing: string, consigned: bool|null,
         *      theirs: int|null}} $row
         */
        foreach ($rows as $row) {
            [$supplier, $item, $code, $pack, $rule, $prices, $lead, $rank, $until, $rise, $on, $more] = $row;
            $offer = $this->entities
                ->getRepository(Offer::class)
                ->findOneBy(['supplier' => $supplier, 'item' => $item, 'packName' => $pack]);
            $known = null !== $offer;
            if (null === $offer) {
                $offer = new Offer(
                    $this->entities->find(Supplier::class, $supplier) ?? throw new \LogicException('Checked before.'),
                    $this->entities->find(Item::class, $item) ?? throw new \LogicException('Checked before.'),
                    $code,
                    $pack,
                    $rule->pack->content,
                );
                $this->entities->persist($offer);
            } elseif ('' !== $code) {
                $offer->recode($code);
            }
            $offer->sellBy($rule);
            if ($known && (string) json_encode($offer->listPrices()->steps) !== (string) json_encode($prices->steps)) {
                $this->prices->change($offer, $prices, $today, $today, 'brought by file');
            } else {
                $offer->price($prices);
            }
            $offer->discount(ChainedDiscounts::read($more['discounts']));
            $offer->describe(
                $more['description'] ?: $offer->description(),
                $more['stated'],
                $more['outer'] ?: $offer->outerPacks(),
            );
            $offer->comesFrom(
                $more['origin'] ?: $offer->origin(),
                $more['tariff'] ?: $offer->tariffNumber(),
                $more['duty'] ?? $offer->dutyPercent(),
            );
            $offer->isMadeBy(
                $more['maker'] ?: $offer->manufacturer(),
                $more['packing'] ?: $offer->packing(),
            );
            $offer->inspect($more['inspected']);
            $offer->block($more['blocked']);
            if (null !== $more['consigned']) {
                $offer->consign($more['consigned'], $more['theirs'] ?? 0);
            }
            $offer->promise($lead, $rank, $until, $more['from']);
            $offer->announce($rise, $on);
        }
        $this->entities->flush();
    }

    private static function kind(Row $row): BreakKind
    {
        return BreakKind::tryFrom($row->text('break_kind', 12, BreakKind::AllUnits->value)) ??
            throw InvalidValue::because(
                sprintf('“%s” is no kind of break; expected all-units or incremental', $row->text('break_kind')),
            );
    }

    private static function basis(Row $row): BreakBasis
    {
        return BreakBasis::tryFrom($row->text('break_basis', 12, BreakBasis::Quantity->value)) ??
            throw InvalidValue::because(
                sprintf('“%s” is nothing breaks go by; expected quantity or value', $row->text('break_basis')),
            );
    }
}
