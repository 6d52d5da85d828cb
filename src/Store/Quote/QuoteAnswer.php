<?php

declare(strict_types=1);

namespace TallBarrel\Store\Quote;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Core\Sourcing\OfferTerms as CoreOffer;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Core\Sourcing\Seller;
use TallBarrel\Store\Type\BigDecimalType;

/**
 * What a supplier answered, once. Prices are of one stock unit in the supplier's currency.
 *
 * @phpstan-type AnswerLine array{item: int, prices: list<array{string, string}>, most: string|null,
 *      multiple: string|null, code: string, alternate: string}
 */
#[ORM\Entity]
class QuoteAnswer
{
    public const PAGE = 'their page';
    public const FILE = 'file';
    public const TYPED = 'typed by us';

    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Column]
    public readonly int $revision;

    /**
     * @param list<AnswerLine> $lines quoted lines: price from so many on, the most they can supply, steps they sell in,
     *      what they would send instead
     *
     * @throws InvalidValue if nothing is quoted
     */
    public function __construct(
        #[ORM\ManyToOne(inversedBy: 'answers'), ORM\JoinColumn(nullable: false)] public readonly Quote $quote,
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $at,
        #[ORM\Column(length: 20)] public readonly string $via,
        #[ORM\Column] public readonly bool $late,
        #[ORM\Column] public readonly int $leadDays,
        #[ORM\Column(type: 'date_immutable', nullable: true)] public readonly ?\DateTimeImmutable $validUntil,
        /** For the whole order, in place of their usual freight; null where that holds. */
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2, nullable: true),]
        public readonly ?BigDecimal $charges,
        #[ORM\Column(length: 1000)] public readonly string $note,
        #[ORM\Column(name: 'quoted', type: 'json')] public readonly array $lines,
    ) {
        if ([] === $lines) {
            throw InvalidValue::because('No price has been given. To quote nothing at all, decline instead.');
        }
        $this->revision = 1 + count($quote->answers());
    }

    /** @return AnswerLine|null */
    public function line(QuoteItem $item): ?array
    {
        return self::lineIn($this->lines, $item->id);
    }

    /**
     * @param list<AnswerLine> $lines
     *
     * @return AnswerLine|null
     */
    private static function lineIn(array $lines, int $item): ?array
    {
        foreach ($lines as $line) {
            if ($line['item'] === $item) {
                return $line;
            }
        }

        return null;
    }

    public function prices(QuoteItem $item): ?PriceBreaks
    {
        return self::pricesIn($this->lines, $item->id);
    }

    /** @param list<AnswerLine> $lines */
    public static function pricesIn(array $lines, int $item): ?PriceBreaks
    {
        $line = self::lineIn($lines, $item);

        return null === $line
            ? null
            : PriceBreaks::of(
                array_map(
                    static fn (array $price): array => [BigDecimal::of($price[0]), BigDecimal::of($price[1])],
                    $line['prices'],
                ),
            );
    }

    /** As an offer for single stock units, to be compared by the same sum as any other. */
    public function asOffer(QuoteItem $item, ExchangeRate $rate, float $dutyPercent = 0.0): ?CoreOffer
    {
        $prices = $this->prices($item);
        if (null === $prices) {
            return null;
        }
        $multiple = $this->line($item)['multiple'] ?? null;

        return new CoreOffer(
            $this->quote->id,
            $this->quote->supplier->id,
            BuyingRule::of(Pack::of('each', 1), 1, $multiple ?? 1),
            $prices,
            $rate,
            1,
            $this->leadDays,
            null,
            $dutyPercent,
            $item->item?->weightKg()?->toFloat() ?? 0.0,
        );
    }

    /** Charges that were quoted come in place of its freight, and what that came to before says nothing of them. */
    public function asSeller(Seller $usual): Seller
    {
        return null === $this->charges
            ? $usual
            : $usual->withFreight(FreightTariff::flat($this->charges->toFloat()))->whoseFreightCameTo(1.0);
    }

    /** So many of what is asked for, in steps they sell in, up to what they can supply. */
    public function supplies(QuoteItem $item, BigDecimal $wanted): BigDecimal
    {
        $line = $this->line($item);
        if (null === $line) {
            return BigDecimal::zero();
        }
        $step = BigDecimal::of($line['multiple'] ?? 1);
        $packs = $wanted->dividedBy($step, 0, RoundingMode::Up)->multipliedBy($step);

        return null !== $line['most'] && $packs->isGreaterThan($line['most']) ? BigDecimal::of($line['most']) : $packs;
    }
}
