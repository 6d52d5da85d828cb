<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

use Brick\Math\BigDecimal;
use Brick\Math\BigNumber;
use Brick\Math\RoundingMode;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Numerals;

/** Prices of one pack by how much is bought. */
final readonly class PriceBreaks
{
    private const PRICE_SCALE = 6;

    /**
     * @param non-empty-list<array{from: BigDecimal, price: BigDecimal}> $steps as the supplier states them, rising
     * @param non-empty-list<BigDecimal>                                 $packs from so many packs each step holds
     */
    private function __construct(
        public array $steps,
        public BreakKind $kind,
        public BreakBasis $basis,
        private array $packs,
    ) {
    }

    /**
     * @param list<array{BigNumber|int|string, BigNumber|int|string}> $steps pairs of "from so much" and price of one
     *      pack
     *
     * @throws InvalidValue if there is none, two start at the same place, one is dearer than that before it, or below
     *      zero
     */
    public static function of(
        array $steps,
        BreakKind $kind = BreakKind::AllUnits,
        BreakBasis $basis = BreakBasis::Quantity,
    ): self {
        $sorted = array_map(
            static fn (array $step): array => ['from' => BigDecimal::of($step[0]), 'price' => BigDecimal::of($step[1])],
            $steps,
        );
        usort($sorted, static fn (array $a, array $b): int => $a['from']->compareTo($b['from']));
        if ([] === $sorted) {
            throw InvalidValue::because('An offer needs at least one price.');
        }
        $packs = [];
        foreach ($sorted as $i => $step) {
            if ($step['price']->isNegative()) {
                throw InvalidValue::negative((string) $step['price'], 'a price of 0 or more');
            }
            if ($i > 0 && $step['from']->isEqualTo($sorted[$i - 1]['from'])) {
                throw InvalidValue::because(sprintf('Two prices both start at %s.', $step['from']));
            }
            if ($i > 0 && $step['price']->isGreaterThan($sorted[$i - 1]['price'])) {
                throw InvalidValue::because(
                    sprintf(
                        'From %s on the price rises from %s to %s; a break can only make it lower.',
                        $step['from'],
                        $sorted[$i - 1]['price'],
                        $step['price'],
                    ),
                );
            }
            $packs[] =
                BreakBasis::Quantity === $basis || !$sorted[0]['price']->isPositive()
                    ? $step['from']
                    : $step['from']->dividedBy($sorted[0]['price'], self::PRICE_SCALE, RoundingMode::Up);
        }

        return new self($sorted, $kind, $basis, $packs);
    }

    /**
     * Reads prices as they are typed: "9.30", or "1=9.30 40=8.97" for breaks.
     *
     * @throws InvalidValue
     */
    public static function read(
        string $typed,
        BreakKind $kind = BreakKind::AllUnits,
        BreakBasis $basis = BreakBasis::Quantity,
        ?Numerals $numerals = null,
    ): self {
        $numerals ??= Numerals::with(Numerals::POINT);
        $steps = [];
        foreach (preg_split('/\s+/', $typed, -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $part) {
            if (1 !== preg_match('/^(?:([\d.,]+)=)?([\d.,]+)$/', $part, $found)) {
                throw InvalidValue::because(
                    sprintf('“%s” is not a price; expected 9.30, or 1=9.30 40=8.97 for breaks', $part),
                );
            }
            $steps[] = [
                '' === $found[1] ? BigDecimal::one() : $numerals->quantity($found[1]),
                $numerals->decimal($found[2], 4, 'a price such as 9.30'),
            ];
        }

        return self::of($steps, $kind, $basis);
    }

    /** As read() takes it: "9.3", or "1=9.3 40=8.97". */
    public function label(): string
    {
        $alone = 1 === count($this->steps) && $this->steps[0]['from']->isEqualTo(1);

        return implode(
            ' ',
            array_map(
                static fn (array $step): string => ($alone ? '' : $step['from']->strippedOfTrailingZeros().'=').
                    $step['price']->strippedOfTrailingZeros(),
                $this->steps,
            ),
        );
    }

    /**
     * The same figures, with breaks of another kind.
     *
     * @throws InvalidValue
     */
    public function reckonedAs(BreakKind $kind, BreakBasis $basis): self
    {
        return $kind === $this->kind && $basis === $this->basis
            ? $this
            : self::of(
                array_map(static fn (array $step): array => [$step['from'], $step['price']], $this->steps),
                $kind,
                $basis,
            );
    }

    /**
     * The same, with discounts taken off each price and rounded to six decimals; breaks by value still count list
     * prices.
     */
    public function after(ChainedDiscounts $discounts): self
    {
        $factor = $discounts->factor();
        if ($factor->isEqualTo(1)) {
            return $this;
        }

        return new self(
            array_map(
                static fn (array $step): array => [
                    'from' => $step['from'],
                    'price' => $step['price']
                        ->multipliedBy($factor)
                        ->toScale(self::PRICE_SCALE, RoundingMode::HalfUp)
                        ->strippedOfTrailingZeros(),
                ],
                $this->steps,
            ),
            $this->kind,
            $this->basis,
            $this->packs,
        );
    }

    /**
     * Price of one pack when so many are bought: the mean one where breaks lower only what goes beyond them, to six
     * decimals. Below the first step the first price holds.
     */
    public function priceFor(BigNumber|int|string $packs): BigDecimal
    {
        $packs = BigDecimal::of($packs);
        if (BreakKind::Incremental === $this->kind && count($this->steps) > 1 && $packs->isPositive()) {
            return $this->costOf($packs)
                ->dividedBy($packs, self::PRICE_SCALE, RoundingMode::HalfUp)
                ->strippedOfTrailingZeros();
        }

        return $this->steps[$this->stepAt($packs)]['price'];
    }

    /** Cost of so many packs, exactly. */
    public function costOf(BigNumber|int|string $packs): BigDecimal
    {
        $packs = BigDecimal::of($packs);
        $reached = $this->stepAt($packs);
        if (BreakKind::AllUnits === $this->kind) {
            return $this->steps[$reached]['price']->multipliedBy($packs);
        }
        $cost = BigDecimal::zero();
        for ($i = 0; $i <= $reached; ++$i) {
            $from = 0 === $i ? BigDecimal::zero() : $this->packs[$i];
            $until = $i < $reached ? $this->packs[$i + 1] : $packs;
            $cost = $cost->plus($this->steps[$i]['price']->multipliedBy($until->minus($from)));
        }

        return $cost;
    }

    /**
     * With another price where so many packs stand; the other steps stay.
     *
     * @throws InvalidValue if a later step would then be dearer, or the price is a mean of several steps
     */
    public function withPriceAt(BigNumber|int|string $packs, BigDecimal $price): self
    {
        if (BreakKind::Incremental === $this->kind && count($this->steps) > 1) {
            throw InvalidValue::because(
                'Their prices fall only for what goes beyond each break, so one mean price cannot become the offer. '
                .'Change the offer itself.',
            );
        }
        $reached = $this->stepAt(BigDecimal::of($packs));

        return self::of(
            array_map(
                static fn (array $step, int $i): array => [$step['from'], $i === $reached ? $price : $step['price']],
                $this->steps,
                array_keys($this->steps),
            ),
            $this->kind,
            $this->basis,
        );
    }

    /** @return list<array{from: BigDecimal, price: BigDecimal}> from so many packs, the price that then begins */
    public function byPacks(): array
    {
        return array_map(
            static fn (array $step, BigDecimal $from): array => ['from' => $from, 'price' => $step['price']],
            $this->steps,
            $this->packs,
        );
    }

    private function stepAt(BigDecimal $packs): int
    {
        $reached = 0;
        foreach ($this->packs as $i => $from) {
            if ($from->isGreaterThan($packs)) {
                break;
            }
            $reached = $i;
        }

        return $reached;
    }
}
