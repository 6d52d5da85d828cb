<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\InvalidValue;

/** How an item is replenished, and the service aimed at. */
final readonly class Policy
{
    private function __construct(
        public PolicyKind $kind,
        public ServiceTarget $target,
        public ?float $amount,
        public ?float $minimum,
        public bool $beyond,
    ) {
    }

    /**
     * @param float|null $amount maximum, par level or fixed quantity in stock units, days, or sales value, as the kind
     *      says
     * @param float|null $minimum stock units, for min–max only
     * @param bool       $beyond  whether a lower price, or one about to rise, may take it beyond its level
     *
     * @throws InvalidValue if the kind needs a figure that is missing, or it makes no sense
     */
    public static function of(
        PolicyKind $kind,
        ServiceTarget $target,
        ?float $amount = null,
        ?float $minimum = null,
        bool $beyond = false,
    ): self {
        if ($kind->needsAmount() && null === $amount) {
            throw InvalidValue::because(
                sprintf('“%s” needs a figure: %s.', ucfirst($kind->words()), $kind->amountWords()),
            );
        }
        if (null !== $amount && ($amount < 0 || (0.0 === $amount && PolicyKind::Par !== $kind))) {
            throw InvalidValue::because(
                sprintf('%g is not a useful figure for “%s”; expected above 0.', $amount, $kind->words()),
            );
        }
        if (PolicyKind::MinMax === $kind && (null === $minimum || $minimum < 0 || $minimum > $amount)) {
            throw InvalidValue::because(
                sprintf(
                    'A minimum of %s does not go with a maximum of %g; expected 0 up to the maximum.',
                    null === $minimum ? 'nothing' : sprintf('%g', $minimum),
                    (float) $amount,
                ),
            );
        }

        return new self(
            $kind,
            $target,
            null === $kind->amountWords() ? null : $amount,
            PolicyKind::MinMax === $kind ? $minimum : null,
            $kind->hasMaximum() && $beyond,
        );
    }

    public static function standard(): self
    {
        return new self(PolicyKind::OrderUpTo, ServiceTarget::of(ServiceTarget::CYCLE, 0.95), null, null, false);
    }

    /** Only what somebody asked for: nothing is kept, so nothing is bought for stock. */
    public static function asAsked(): self
    {
        return new self(PolicyKind::Par, ServiceTarget::of(ServiceTarget::CYCLE, 0.95), 0.0, null, false);
    }

    public function aimingAt(ServiceTarget $target): self
    {
        return new self($this->kind, $target, $this->amount, $this->minimum, $this->beyond);
    }

    /** The same aim, covering so many days. */
    public function covering(float $days): self
    {
        return new self(PolicyKind::CoverDays, $this->target, $days, null, false);
    }

    /** Whether more than is wanted may be bought because it is cheaper so. */
    public function mayGoBeyond(): bool
    {
        return $this->beyond || !$this->kind->hasMaximum();
    }
}
