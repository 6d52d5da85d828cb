<?php

declare(strict_types=1);

namespace TallBarrel\Store\Person;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Refused;

/** A link by which somebody chooses a password: sent once, used once, for a time. Only its hash is kept. */
#[ORM\Entity]
class PersonLink
{
    public const INVITATION = 'invitation';
    public const FORGOTTEN = 'forgotten';

    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Column(type: 'datetime_immutable', nullable: true)]
    private ?\DateTimeImmutable $usedAt = null;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')] public readonly Person $person,
        #[ORM\Column(length: 12)] public readonly string $purpose,
        #[ORM\Column(length: 64, unique: true)] public readonly string $hash,
        #[ORM\Column(type: 'datetime_immutable')] private \DateTimeImmutable $until,
    ) {
    }

    /** @throws Refused if it was used, is over, or the person was blocked */
    public function check(\DateTimeImmutable $now): void
    {
        if (null !== $this->usedAt) {
            throw new Refused('This link was used already. Sign in, or ask for a new one.');
        }
        if ($now > $this->until || $this->person->isBlocked()) {
            throw new Refused('This link is over. Ask for a new one.');
        }
    }

    public function use(\DateTimeImmutable $now): void
    {
        $this->check($now);
        $this->usedAt = $now;
    }

    public function end(\DateTimeImmutable $now): void
    {
        $this->usedAt ??= $now;
    }
}
