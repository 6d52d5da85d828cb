<?php

declare(strict_types=1);

namespace TallBarrel\Core;

/** How long somebody stays signed in: without doing anything, and at the most. */
final readonly class VisitLength
{
    public const SHORTEST_IDLE = 30;
    public const LONGEST_IDLE = 1440;
    public const LONGEST = 720;

    private function __construct(public int $idleMinutes, public int $mostHours)
    {
    }

    /**
     * @param int $idleMinutes 30 to 1,440
     * @param int $mostHours   1 to 720 (30 days; OWASP ASVS 4.0.3, 3.3.2, level 1)
     *
     * @throws InvalidValue
     */
    public static function of(int $idleMinutes, int $mostHours): self
    {
        if ($idleMinutes < self::SHORTEST_IDLE || $idleMinutes > self::LONGEST_IDLE) {
            throw InvalidValue::because(sprintf(
                '%d minutes: say %d to %s.',
                $idleMinutes,
                self::SHORTEST_IDLE,
                number_format(self::LONGEST_IDLE),
            ));
        }
        if ($mostHours < 1 || $mostHours > self::LONGEST) {
            throw InvalidValue::because(sprintf('%d hours: say 1 to %d.', $mostHours, self::LONGEST));
        }

        return new self($idleMinutes, $mostHours);
    }

    /** Half a working day without doing anything; twelve hours at the most (OWASP ASVS 4.0.3, 3.3.2, level 2). */
    public static function usual(): self
    {
        return new self(240, 12);
    }

    public function equals(self $other): bool
    {
        return $this->idleMinutes === $other->idleMinutes && $this->mostHours === $other->mostHours;
    }

    public function isOver(\DateTimeImmutable $begun, \DateTimeImmutable $seen, \DateTimeImmutable $now): bool
    {
        return $now->getTimestamp() - $seen->getTimestamp() > 60 * $this->idleMinutes
            || $now->getTimestamp() - $begun->getTimestamp() > 3600 * $this->mostHours;
    }
}
