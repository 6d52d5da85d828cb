<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;

/** A reason that can be chosen. */
#[ORM\Entity]
#[ORM\Table(name: 'reason')]
#[ORM\UniqueConstraint(name: 'reason_once', columns: ['kind', 'words'])]
class KnownReason
{
    public const LONGEST = 40;

    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Column(length: self::LONGEST)]
    public readonly string $words;

    /** @throws InvalidValue if it says nothing, or too much */
    public function __construct(
        #[ORM\Column(length: 12, enumType: ReasonKind::class)] public readonly ReasonKind $kind,
        string $words,
    ) {
        $words = trim((string) preg_replace('/\s+/u', ' ', $words));
        if ('' === $words || mb_strlen($words) > self::LONGEST) {
            throw InvalidValue::because(
                sprintf('“%s” is no reason; expected 1 to %d characters.', mb_substr($words, 0, 60), self::LONGEST),
            );
        }
        $this->words = $words;
    }
}
