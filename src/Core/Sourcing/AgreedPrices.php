<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

/** All that holds on a day of what was agreed beyond single offers. */
final readonly class AgreedPrices
{
    /** @param array<string, non-empty-list<AgreedPrice>> $byPlace the latest first */
    private function __construct(private array $byPlace)
    {
    }

    /** @param iterable<AgreedPrice> $agreed where two are alike in scope, the one that should count comes first */
    public static function of(iterable $agreed): self
    {
        $byPlace = [];
        foreach ($agreed as $one) {
            $byPlace[$one->scope->key()][] = $one;
        }

        return new self($byPlace);
    }

    public function isEmpty(): bool
    {
        return [] === $this->byPlace;
    }

    /** The most particular that holds for what one supplier asks for one item; they do not add up. */
    public function holdingFor(
        int $supplier,
        string $supplierGroup,
        int $item,
        string $itemGroup,
        string $currency,
    ): ?AgreedPrice {
        foreach (AgreedScope::places($supplier, $supplierGroup, $item, $itemGroup) as $place) {
            foreach ($this->byPlace[$place] ?? [] as $agreed) {
                if ($agreed->holdsIn($currency)) {
                    return $agreed;
                }
            }
        }

        return null;
    }
}
