<?php

declare(strict_types=1);

namespace TallBarrel\Store\Quote;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Numerals;
use TallBarrel\Store\Item\Item;

/** One thing asked for in a round, in one or several quantities. */
#[ORM\Entity]
class QuoteItem
{
    private const MOST = 5;

    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** @var non-empty-list<string> stock units, rising; the first is what is needed */
    #[ORM\Column(type: 'json')]
    private array $quantities;

    /**
     * @param list<BigDecimal> $quantities
     *
     * @throws InvalidValue
     */
    public function __construct(
        #[ORM\ManyToOne(inversedBy: 'items'), ORM\JoinColumn(nullable: false)] public readonly QuoteRound $round,
        #[ORM\Column] public readonly int $position,
        #[ORM\ManyToOne] public readonly ?Item $item,
        #[ORM\Column(length: 200)] public readonly string $description,
        array $quantities,
    ) {
        if ('' === trim($description)) {
            throw InvalidValue::because('Say what is asked for.');
        }
        $this->quantities = self::sorted($quantities);
    }

    /**
     * Reads "576", or "576 1200 2400" for several.
     *
     * @return list<BigDecimal>
     *
     * @throws InvalidValue
     */
    public static function read(string $typed, Numerals $numerals): array
    {
        $parts = preg_split('/[\s;\/]+/', trim($typed), -1, \PREG_SPLIT_NO_EMPTY) ?: [];

        return array_map($numerals->quantity(...), $parts);
    }

    /** @return non-empty-list<BigDecimal> */
    public function quantities(): array
    {
        return array_map(BigDecimal::of(...), $this->quantities);
    }

    public function needed(): BigDecimal
    {
        return BigDecimal::of($this->quantities[0]);
    }

    public function unit(): string
    {
        return $this->item?->unit->symbol() ?? 'pcs';
    }

    public function code(): string
    {
        return $this->item->code ?? 'free text '.$this->position;
    }

    /**
     * @param list<BigDecimal> $quantities
     *
     * @return non-empty-list<string>
     */
    private static function sorted(array $quantities): array
    {
        usort($quantities, static fn (BigDecimal $a, BigDecimal $b): int => $a->compareTo($b));
        $sorted = array_values(
            array_unique(
                array_map(
                    static fn (BigDecimal $quantity): string => (string) $quantity->strippedOfTrailingZeros(),
                    $quantities,
                ),
            ),
        );
        if ([] === $sorted || !BigDecimal::of($sorted[0])->isPositive()) {
            throw InvalidValue::because('Ask for a quantity above 0, such as 576, or 576 1200 for two prices.');
        }
        if (count($sorted) > self::MOST) {
            throw InvalidValue::because(
                sprintf('%d quantities are too many to answer; ask for at most %d.', count($sorted), self::MOST),
            );
        }

        return $sorted;
    }
}
