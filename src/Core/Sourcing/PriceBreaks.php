<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

use Brick\Math\BigDecimal;
use Brick\Math\BigNumber;
use TallBarrel\Core\InvalidValue;

/** Prices by quantity: from so many packs on, this price for each of all of them (all-units breaks). */
final readonly class PriceBreaks
{
    /** @param non-empty-list<array{from: BigDecimal, price: BigDecimal}> $steps rising quantities */
    private function __construct(public array $steps)
    {
    }

    /**
     * @param list<array{BigNumber|int|string, BigNumber|int|string}> $steps pairs of "from so many packs" and price of one pack
     *
     * @throws InvalidValue if there is none, a quantity comes twice, or a price is below zero
     */
    public static function of(array $steps): self
    {
        $sorted = array_map(static fn (array $step): array => ['from' => BigDecimal::of($step[0]), 'price' => BigDecimal::of($step[1])], $steps);
        usort($sorted, static fn (array $a, array $b): int => $a['from']->compareTo($b['from']));
        if ([] === $sorted) {
            throw InvalidValue::because('An offer needs at least one price.');
        }
        foreach ($sorted as $i => $step) {
            if ($step['price']->isNegative()) {
                throw InvalidValue::negative((string) $step['price'], 'a price of 0 or more');
            }
            if ($i > 0 && $step['from']->isEqualTo($sorted[$i - 1]['from'])) {
                throw InvalidValue::because(sprintf('Two prices both start at %s.', $step['from']));
            }
        }

        return new self($sorted);
    }

    /** Price of one pack when so many are bought. Below the first step the first price holds. */
    public function priceFor(BigNumber|int|string $packs): BigDecimal
    {
        $price = $this->steps[0]['price'];
        foreach ($this->steps as $step) {
            if ($step['from']->isGreaterThan($packs)) {
                break;
            }
            $price = $step['price'];
        }

        return $price;
    }
}
