<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

use Brick\Math\BigDecimal;

/**
 * One line of an order as one revision of it states it.
 *
 * @phpstan-type StatedData array{position: int, item: string, supplierCode: string, description: string, site: string,
 *      pack: string, packs: string, price: string, wanted?: string}
 */
final readonly class StatedLine
{
    public function __construct(
        public int $position,
        public string $description,
        public string $supplierCode,
        public string $pack,
        public BigDecimal $packs,
        public BigDecimal $price,
        public string $wanted,
    ) {
    }

    /**
     * @param StatedData $data   as a sent revision keeps it
     * @param string     $wanted the order's day, for lines without one of their own
     */
    public static function of(array $data, string $wanted): self
    {
        return new self(
            $data['position'],
            $data['description'],
            $data['supplierCode'],
            $data['pack'],
            BigDecimal::of($data['packs'])->strippedOfTrailingZeros(),
            BigDecimal::of($data['price'])->strippedOfTrailingZeros(),
            $data['wanted'] ?? $wanted,
        );
    }
}
