<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving;

use TallBarrel\Core\Country;
use TallBarrel\Core\InvalidValue;

/** What is said of a supplier's batch. */
final readonly class LotFacts
{
    private const LONGEST = 40;

    private function __construct(
        public string $number,
        public ?\DateTimeImmutable $expiresOn,
        public ?\DateTimeImmutable $madeOn,
        public string $origin,
    ) {
    }

    /**
     * Where only the day it was made on is said, the shelf life says until when it may be used.
     *
     * @param int|null $shelfDays days the item keeps
     * @param string   $origin    ISO 3166, two letters, or empty
     *
     * @throws InvalidValue if it is made after its use by, or after today, or there is no such country
     */
    public static function of(
        string $number,
        ?\DateTimeImmutable $expiresOn,
        ?\DateTimeImmutable $madeOn = null,
        string $origin = '',
        ?int $shelfDays = null,
        ?\DateTimeImmutable $today = null,
    ): self {
        $number = trim($number);
        if (mb_strlen($number) > self::LONGEST) {
            throw InvalidValue::because(sprintf('A lot number has at most %d characters.', self::LONGEST));
        }
        if (null !== $madeOn && null !== $today && $madeOn > $today) {
            throw InvalidValue::because(sprintf('Made on %s, which is still to come.', $madeOn->format('j M Y')));
        }
        $expiresOn ??= null === $madeOn || null === $shelfDays
            ? null
            : $madeOn->add(new \DateInterval('P'.$shelfDays.'D'));
        if (null !== $madeOn && null !== $expiresOn && $expiresOn < $madeOn) {
            throw InvalidValue::because(sprintf(
                'Use by %s is before it was made, on %s.',
                $expiresOn->format('j M Y'),
                $madeOn->format('j M Y'),
            ));
        }

        return new self($number, $expiresOn, $madeOn, '' === trim($origin) ? '' : Country::read($origin));
    }

    public function isOver(\DateTimeImmutable $today): bool
    {
        return null !== $this->expiresOn && $this->expiresOn->format('Y-m-d') < $today->format('Y-m-d');
    }
}
