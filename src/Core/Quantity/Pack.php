<?php

declare(strict_types=1);

namespace TallBarrel\Core\Quantity;

use Brick\Math\BigDecimal;
use Brick\Math\BigNumber;
use Brick\Math\RoundingMode;
use TallBarrel\Core\InvalidValue;

/** What a supplier sells as one: "case" with 12 stock units in it. */
final readonly class Pack
{
    private function __construct(public string $name, public BigDecimal $content)
    {
    }

    /**
     * @param BigNumber|int|string $content stock units in one pack, above zero
     *
     * @throws InvalidValue
     */
    public static function of(string $name, BigNumber|int|string $content): self
    {
        $content = BigDecimal::of($content)->strippedOfTrailingZeros();
        if ('' === trim($name)) {
            throw InvalidValue::because('A pack needs a name, such as “case” or “each”.');
        }
        if (!$content->isPositive()) {
            throw InvalidValue::because(
                sprintf('A %s cannot hold %s stock units; expected more than 0.', $name, $content),
            );
        }

        return new self($name, $content);
    }

    /** "case × 12", or "each" where a pack is one stock unit. */
    public function label(): string
    {
        return $this->content->isEqualTo(1) ? $this->name : $this->name.' × '.self::grouped($this->content);
    }

    /** "case", "cases", "boxes"; "each" stays. */
    public function named(BigNumber|int|string $packs): string
    {
        if ('each' === $this->name || BigDecimal::of($packs)->isEqualTo(1)) {
            return $this->name;
        }

        return $this->name.(1 === preg_match('/(s|x|ch|sh)$/', $this->name) ? 'es' : 's');
    }

    public function toStockUnits(BigNumber|int|string $packs): BigDecimal
    {
        return $this->content->multipliedBy($packs)->strippedOfTrailingZeros();
    }

    /** Packs that hold so many stock units, to six decimals, not rounded to what can be bought. */
    public function toPacks(BigNumber|int|string $stockUnits): BigDecimal
    {
        return BigDecimal::of($stockUnits)
            ->dividedBy($this->content, 6, RoundingMode::HalfUp)
            ->strippedOfTrailingZeros();
    }

    private static function grouped(BigDecimal $amount): string
    {
        return $amount->getScale() > 0 ? (string) $amount : number_format($amount->toFloat());
    }
}
