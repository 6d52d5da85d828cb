<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\InvalidValue;

/**
 * The service aimed at: the share of deliveries that come before the stock is gone, or the share of demand served at
 * once.
 */
final readonly class ServiceTarget
{
    public const CYCLE = 'cycle';
    public const FILL = 'fill';

    private function __construct(public string $kind, public float $level)
    {
    }

    /** @throws InvalidValue unless the level lies between 0.5 and 0.999 */
    public static function of(string $kind, float $level): self
    {
        if (!in_array($kind, [self::CYCLE, self::FILL], true)) {
            throw InvalidValue::because(sprintf('“%s” is not a kind of service; expected cycle or fill.', $kind));
        }
        if (!($level >= 0.5 && $level <= 0.999)) {
            throw InvalidValue::because(
                sprintf('A service level of %g is out of range; expected 0.5 to 0.999.', $level),
            );
        }

        return new self($kind, $level);
    }

    public function isFill(): bool
    {
        return self::FILL === $this->kind;
    }

    public function words(): string
    {
        $percent = rtrim(rtrim(number_format(100 * $this->level, 1), '0'), '.');

        return $this->isFill() ? $percent.' % of demand served' : $percent.' % of deliveries in time';
    }
}
