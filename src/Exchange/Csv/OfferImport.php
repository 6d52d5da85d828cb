<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Supplier;

/** Offers, new or changed, each with its price breaks. */
final readonly class OfferImport implements ImportKind
{
    public function __construct(private EntityManagerInterface $entities, private Codes $codes)
    {
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
            'supplier' => 'supplier code *', 'item' => 'item code *', 'supplier_code' => 'their code', 'pack' => 'what they sell as one: case, each *', 'content' => 'stock units in it *',
            'prices' => 'of one pack; with breaks: 1=9.30 40=8.97 *', 'minimum' => 'fewest packs', 'multiple' => 'packs in steps of', 'split' => 'yes when they open a pack',
            'lead_days' => 'from order to delivery', 'rank' => '1 is bought from first', 'valid_until' => 'as 2027-03-31', 'rise_percent' => 'announced price rise', 'rise_on' => 'from which day',
        ];
    }

    public function sample(): array
    {
        return [['VETRASOL', 'JAR-340R', 'VG-0340-R', 'case', '12', '1=7.80 40=7.53', '1', '1', 'no', '6', '1', '2027-03-31', '', '']];
    }

    public function reader(): callable
    {
        $suppliers = $this->codes->suppliers();
        $items = $this->codes->items();
        $seen = [];

        return static function (Row $row) use ($suppliers, $items, &$seen): ?array {
            $supplier = $row->code('supplier', $suppliers, 'supplier');
            $item = $row->code('item', $items, 'item');
            $pack = $row->required('pack', 30);
            $content = $row->decimal('content');
            if (null === $content && !$row->has('content')) {
                $row->refuse('content', 'missing');
            }
            $rule = null === $content ? null : $row->attempt('content', static fn (): BuyingRule => BuyingRule::of(Pack::of($pack, $content), $row->decimal('minimum') ?? 1, $row->decimal('multiple') ?? 1, $row->yes('split', false)));
            $prices = $row->attempt('prices', static fn (): PriceBreaks => self::prices($row->required('prices')));
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
                $row->refuse(null === $rise ? 'rise_percent' : 'rise_on', 'an announced rise needs both a percentage and a day');
            }

            return $row->isGood() ? [$supplier, $item, $code, $pack, $rule, $prices, $lead, $rank, $until, $rise, $on] : null;
        };
    }

    public function apply(iterable $rows, Person $person): void
    {
        /** @var array{int, int, string, string, BuyingRule, PriceBreaks, int, int, \DateTimeImmutable|null, BigDecimal|null, \DateTimeImmutable|null} $row */
        foreach ($rows as $row) {
            [$supplier, $item, $code, $pack, $rule, $prices, $lead, $rank, $until, $rise, $on] = $row;
            $offer = $this->entities->getRepository(Offer::class)->findOneBy(['supplier' => $supplier, 'item' => $item, 'packName' => $pack]);
            if (null === $offer) {
                $offer = new Offer(
                    $this->entities->find(Supplier::class, $supplier) ?? throw new \LogicException('Checked before.'),
                    $this->entities->find(Item::class, $item) ?? throw new \LogicException('Checked before.'),
                    $code, $pack, $rule->pack->content,
                );
                $this->entities->persist($offer);
            } elseif ('' !== $code) {
                $offer->recode($code);
            }
            $offer->sellBy($rule);
            $offer->price($prices);
            $offer->promise($lead, $rank, $until);
            $offer->announce($rise, $on);
        }
        $this->entities->flush();
    }

    /** @throws InvalidValue */
    private static function prices(string $text): PriceBreaks
    {
        $steps = [];
        foreach (preg_split('/\s+/', $text, -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $part) {
            if (1 !== preg_match('/^(?:(\d{1,7}(?:\.\d{1,3})?)=)?(\d{1,9}(?:[.,]\d{1,4})?)$/', $part, $found)) {
                throw InvalidValue::because(sprintf('“%s” is not a price; expected 9.30, or 1=9.30 40=8.97 for breaks', $part));
            }
            $steps[] = ['' === $found[1] ? BigDecimal::one() : BigDecimal::of($found[1]), BigDecimal::of(str_replace(',', '.', $found[2]))];
        }

        return PriceBreaks::of($steps);
    }
}
