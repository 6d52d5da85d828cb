<?php

declare(strict_types=1);

namespace TallBarrel\Store\Person;

use Doctrine\ORM\Mapping as ORM;

/** A sign-in, until it ends: what a person sees in the list of where they are signed in. */
#[ORM\Entity]
class Visit
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Column(type: 'datetime_immutable')]
    private \DateTimeImmutable $seenAt;

    #[ORM\Column(type: 'datetime_immutable', nullable: true)]
    private ?\DateTimeImmutable $endedAt = null;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')] public readonly Person $person,
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $startedAt,
        /** What the browser calls itself. */
        #[ORM\Column(length: 200)] public readonly string $device,
        #[ORM\Column(length: 45)] public readonly string $address,
    ) {
        $this->seenAt = $startedAt;
    }

    public function seen(\DateTimeImmutable $now): void
    {
        $this->seenAt = $now;
    }

    public function end(\DateTimeImmutable $now): void
    {
        $this->endedAt ??= $now;
    }

    public function seenAt(): \DateTimeImmutable
    {
        return $this->seenAt;
    }

    public function isOver(): bool
    {
        return null !== $this->endedAt;
    }

    /** The browser and the machine, as far as it tells. */
    public function where(): string
    {
        $found = [];
        foreach (['Firefox', 'Edg', 'Chrome', 'Safari'] as $browser) {
            if (str_contains($this->device, $browser.'/')) {
                $found[] = 'Edg' === $browser ? 'Edge' : $browser;
                break;
            }
        }
        foreach (['Android', 'iPhone', 'iPad', 'Windows', 'Macintosh', 'Linux'] as $machine) {
            if (str_contains($this->device, $machine)) {
                $found[] = $machine;
                break;
            }
        }

        return [] === $found ? 'a browser' : implode(' on ', $found);
    }
}
