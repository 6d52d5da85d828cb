<?php

declare(strict_types=1);

namespace TallBarrel\Store\Dock;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Type\BigDecimalType;

/** Who brought a delivery, in how many pieces, and in what state. */
#[ORM\Embeddable]
final class HowItCame
{
    private const MOST_PIECES = 10_000;
    private const COLDEST = -90;
    private const HOTTEST = 90;

    #[ORM\Column(length: 60, options: ['default' => ''])]
    private string $carrier = '';

    #[ORM\Column(length: 60, options: ['default' => ''])]
    private string $tracking = '';

    /** Null where nobody counted them. */
    #[ORM\Column(nullable: true)]
    private ?int $packages = null;

    #[ORM\Column(nullable: true)]
    private ?int $pallets = null;

    /** What was seen from outside; empty where nothing was. */
    #[ORM\Column(name: 'seen', length: 200, options: ['default' => ''])]
    private string $condition = '';

    /** Degrees Celsius; null where nobody measured. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 5, scale: 1, nullable: true)]
    private ?BigDecimal $temperature = null;

    /** @throws InvalidValue if there cannot be so many, or it cannot be so cold or hot */
    public static function of(
        string $carrier,
        string $tracking,
        ?BigDecimal $packages,
        ?BigDecimal $pallets,
        string $condition,
        ?BigDecimal $temperature,
    ): self {
        $came = new self();
        $came->carrier = $carrier;
        $came->tracking = $tracking;
        $came->packages = self::pieces('packages', $packages);
        $came->pallets = self::pieces('pallets', $pallets);
        $came->condition = $condition;
        if (
            null !== $temperature
            && ($temperature->isLessThan(self::COLDEST) || $temperature->isGreaterThan(self::HOTTEST))
        ) {
            throw InvalidValue::because(
                sprintf('%s °C; expected %d to %d.', $temperature, self::COLDEST, self::HOTTEST),
            );
        }
        $came->temperature = $temperature?->toScale(1, RoundingMode::HalfUp);

        return $came;
    }

    /** @throws InvalidValue */
    private static function pieces(string $what, ?BigDecimal $many): ?int
    {
        if (null === $many) {
            return null;
        }
        $many = $many->strippedOfTrailingZeros();
        if ($many->getScale() > 0 || $many->isNegative() || $many->isGreaterThan(self::MOST_PIECES)) {
            throw InvalidValue::because(
                sprintf('%s %s; expected a whole number up to %d.', $many, $what, self::MOST_PIECES),
            );
        }

        return $many->toInt();
    }

    public function carrier(): string
    {
        return $this->carrier;
    }

    public function tracking(): string
    {
        return $this->tracking;
    }

    public function packages(): ?int
    {
        return $this->packages;
    }

    public function pallets(): ?int
    {
        return $this->pallets;
    }

    public function condition(): string
    {
        return $this->condition;
    }

    public function temperature(): ?BigDecimal
    {
        return $this->temperature;
    }
}
