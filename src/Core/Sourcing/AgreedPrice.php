<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Numerals;

/** A price or a discount that was agreed beyond single offers, by how much is bought. */
final readonly class AgreedPrice
{
    private const SCALE = 6;

    /**
     * @param non-empty-list<array{from: BigDecimal, amount: BigDecimal}> $steps from so many stock units, or so much
     *      money, on: percent, or the price of one stock unit; rising
     */
    private function __construct(
        public int $id,
        public AgreedScope $scope,
        public AgreedKind $kind,
        public BreakBasis $basis,
        public string $currency,
        public array $steps,
        public string $name,
    ) {
    }

    /**
     * @param string $typed    "5" or "10", or by how much is bought "1=5 100=7.5"
     * @param string $currency ISO 4217, of a price or of what a step by value counts; empty where it has neither
     * @param string $name     what people call it
     *
     * @throws InvalidValue if a price is for no single item, a step gives less than the one before it, a discount is
     *      not from above 0 to below 100, or a currency is missing
     */
    public static function read(
        int $id,
        AgreedScope $scope,
        AgreedKind $kind,
        BreakBasis $basis,
        string $currency,
        string $typed,
        string $name,
        ?Numerals $numerals = null,
    ): self {
        $numerals ??= Numerals::with(Numerals::POINT);
        if (AgreedKind::Price === $kind && null === $scope->item) {
            throw InvalidValue::because(
                'A price can be agreed for one item only; for several, agree on a discount.',
            );
        }
        if ('' === $currency && (AgreedKind::Price === $kind || BreakBasis::Value === $basis)) {
            throw InvalidValue::because('Say in which currency: a price, or what is counted by value, has one.');
        }
        $steps = [];
        foreach (preg_split('/\s+/', trim($typed), -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $part) {
            if (1 !== preg_match('/^(?:([\d.,]+)=)?([\d.,]+)%?$/', $part, $found)) {
                throw InvalidValue::because(
                    sprintf('“%s” is no price or percentage; expected 5, or 1=5 100=7.5 for steps.', $part),
                );
            }
            $steps[] = [
                'from' => '' === $found[1] ? BigDecimal::zero() : $numerals->quantity($found[1]),
                'amount' => $numerals->decimal($found[2], 4, 'a figure such as 7.5')->strippedOfTrailingZeros(),
            ];
        }
        usort($steps, static fn (array $a, array $b): int => $a['from']->compareTo($b['from']));
        if ([] === $steps) {
            throw InvalidValue::because('Say what was agreed: 5, or 1=5 100=7.5 for steps.');
        }
        self::mustGiveMore($steps, $kind);

        return new self($id, $scope, $kind, $basis, $currency, $steps, $name);
    }

    /**
     * @param non-empty-list<array{from: BigDecimal, amount: BigDecimal}> $steps
     *
     * @throws InvalidValue
     */
    private static function mustGiveMore(array $steps, AgreedKind $kind): void
    {
        foreach ($steps as $i => ['from' => $from, 'amount' => $amount]) {
            if (AgreedKind::Discount === $kind && $amount->isGreaterThanOrEqualTo(100)) {
                throw InvalidValue::because(
                    sprintf('A discount of %s %% leaves nothing to pay; expected below 100.', $amount),
                );
            }
            if (!$amount->isPositive()) {
                throw InvalidValue::because(sprintf('%s was agreed from %s on; expected above 0.', $amount, $from));
            }
            if (0 === $i) {
                continue;
            }
            $before = $steps[$i - 1];
            if ($from->isEqualTo($before['from'])) {
                throw InvalidValue::because(sprintf('Two steps both start at %s.', $from));
            }
            $less =
                AgreedKind::Discount === $kind
                    ? $amount->isLessThan($before['amount'])
                    : $amount->isGreaterThan($before['amount']);
            if ($less) {
                throw InvalidValue::because(
                    sprintf(
                        'From %s on it is %s after %s; more must not cost more.',
                        $from,
                        $amount,
                        $before['amount'],
                    ),
                );
            }
        }
    }

    public function holdsIn(string $currency): bool
    {
        return '' === $this->currency || $this->currency === $currency;
    }

    /**
     * What an offer then costs; below the first step its own prices hold. A step by value counts what is bought at the
     * first price, as breaks by value do; a discount over breaks that lower only what goes beyond them lowers what goes
     * beyond its own steps too. Prices are rounded to six decimals.
     *
     * @param PriceBreaks $prices  of one pack, the offer's own discounts taken off
     * @param BigDecimal  $content stock units of one pack
     */
    public function on(PriceBreaks $prices, BigDecimal $content): PriceBreaks
    {
        $own = $prices->byPacks();
        $begins = $this->inPacks($own[0]['price'], $content);
        $froms = [];
        foreach ([...array_column($own, 'from'), ...$begins] as $from) {
            $from = $from->isLessThan($own[0]['from']) ? $own[0]['from'] : $from;
            $froms[(string) $from->strippedOfTrailingZeros()] = $from;
        }
        usort($froms, static fn (BigDecimal $a, BigDecimal $b): int => $a->compareTo($b));
        $steps = [];
        foreach ($froms as $from) {
            $asked = $own[0]['price'];
            foreach ($own as $step) {
                $asked = $step['from']->isLessThanOrEqualTo($from) ? $step['price'] : $asked;
            }
            $price = $this->lowered($asked, $this->reachedAt($from, $begins), $content);
            // What was agreed from so many on never makes them dearer than fewer.
            if ([] === $steps || $price->isLessThan($steps[count($steps) - 1][1])) {
                $steps[] = [$from, $price];
            }
        }

        return PriceBreaks::of($steps, AgreedKind::Price === $this->kind ? BreakKind::AllUnits : $prices->kind);
    }

    private function lowered(BigDecimal $asked, ?BigDecimal $agreed, BigDecimal $content): BigDecimal
    {
        if (null === $agreed) {
            return $asked;
        }
        $price =
            AgreedKind::Price === $this->kind
                ? $agreed->multipliedBy($content)
                : $asked->multipliedBy(self::left($agreed));

        return $price->toScale(self::SCALE, RoundingMode::HalfUp)->strippedOfTrailingZeros();
    }

    /** What is left of one. */
    private static function left(BigDecimal $percent): BigDecimal
    {
        return BigDecimal::of(100)->minus($percent)->withPointMovedLeft(2);
    }

    /**
     * The offer's own price that leaves so much to pay: the inverse of on(), where so many packs are bought.
     *
     * @param PriceBreaks $prices of one pack, the offer's own discounts taken off
     *
     * @throws InvalidValue where a price was agreed, which no offer changes
     */
    public function before(BigDecimal $price, BigDecimal $packs, PriceBreaks $prices, BigDecimal $content): BigDecimal
    {
        if (AgreedKind::Price === $this->kind) {
            throw InvalidValue::because(
                sprintf('The price was agreed as “%s”; change it there, the offer does not decide it.', $this->name),
            );
        }
        $reached = $this->reachedAt($packs, $this->inPacks($prices->byPacks()[0]['price'], $content));

        return null === $reached ? $price : $price->dividedBy(self::left($reached), self::SCALE, RoundingMode::HalfUp);
    }

    /** Whether it already holds when so many packs are bought. */
    public function isReached(BigDecimal $packs, PriceBreaks $prices, BigDecimal $content): bool
    {
        return null !== $this->reachedAt($packs, $this->inPacks($prices->byPacks()[0]['price'], $content));
    }

    /** "5 %, 7.5 % from 100" or "1.2 EUR, 1.1 EUR from 100", as the steps stand. */
    public function label(): string
    {
        $unit = AgreedKind::Discount === $this->kind ? ' %' : ' '.$this->currency;
        $money = BreakBasis::Value === $this->basis ? ' '.$this->currency : '';

        return implode(
            ', ',
            array_map(
                static fn (array $step): string => $step['amount'].$unit.($step['from']->isGreaterThan(1)
                    ? ' from '.$step['from']->strippedOfTrailingZeros().$money
                    : ''),
                $this->steps,
            ),
        );
    }

    /** @return non-empty-list<BigDecimal> from so many packs each step holds */
    private function inPacks(BigDecimal $firstPrice, BigDecimal $content): array
    {
        $one = BreakBasis::Value === $this->basis && $firstPrice->isPositive() ? $firstPrice : $content;

        return array_map(
            static fn (array $step): BigDecimal => $step['from']->dividedBy($one, self::SCALE, RoundingMode::Up),
            $this->steps,
        );
    }

    /**
     * @param non-empty-list<BigDecimal> $begins
     *
     * @return BigDecimal|null percent or price; null below the first step
     */
    private function reachedAt(BigDecimal $packs, array $begins): ?BigDecimal
    {
        $reached = null;
        foreach ($begins as $i => $from) {
            $reached = $from->isLessThanOrEqualTo($packs) ? $this->steps[$i]['amount'] : $reached;
        }

        return $reached;
    }
}
