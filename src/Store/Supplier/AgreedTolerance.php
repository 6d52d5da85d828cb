<?php

declare(strict_types=1);

namespace TallBarrel\Store\Supplier;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Settling\Tolerance;
use TallBarrel\Store\Type\BigDecimalType;

/** How much more than agreed a supplier's invoice may ask before somebody decides; the usual where nothing is said. */
#[ORM\Embeddable]
final class AgreedTolerance
{
    #[ORM\Column(name: 'tolerance_percent', type: BigDecimalType::NAME, precision: 5, scale: 2, nullable: true)]
    private ?BigDecimal $percent = null;

    /** Of a line, in the supplier's currency. */
    #[ORM\Column(name: 'tolerance_amount', type: BigDecimalType::NAME, precision: 10, scale: 2, nullable: true)]
    private ?BigDecimal $amount = null;

    /** @throws InvalidValue */
    public static function of(?BigDecimal $percent, ?BigDecimal $amount): self
    {
        $agreed = new self();
        $agreed->percent = $percent;
        $agreed->amount = $amount;
        $agreed->tolerance();

        return $agreed;
    }

    public function percent(): ?BigDecimal
    {
        return $this->percent;
    }

    public function amount(): ?BigDecimal
    {
        return $this->amount;
    }

    /** @throws InvalidValue */
    public function tolerance(): Tolerance
    {
        $usual = Tolerance::usual();

        return Tolerance::of($this->percent ?? $usual->percent, $this->amount ?? $usual->amount);
    }
}
