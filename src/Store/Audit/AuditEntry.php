<?php

declare(strict_types=1);

namespace TallBarrel\Store\Audit;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Store\Person\Person;

/** Who did what to what, and when; with what was before and is now, where something was changed along with it. */
#[ORM\Entity(readOnly: true)]
#[ORM\Index(columns: ['subject'], name: 'audit_subject')]
#[ORM\Index(columns: ['at'], name: 'audit_at')]
class AuditEntry
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** @var list<array{of: string, field: string, was: string, is: string}>|null */
    #[ORM\Column(type: 'json', nullable: true)]
    private ?array $changes = null;

    /** Its place in the chain, once it is sealed (Seals). */
    #[ORM\Column(nullable: true, unique: true)]
    public readonly ?int $seal;

    /** SHA-256 of all that is written here and of the seal before. */
    #[ORM\Column(length: 64, nullable: true)]
    public readonly ?string $hash;

    public function __construct(
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $at,
        #[ORM\ManyToOne] public readonly ?Person $person,
        /** Such as "PO-1048" or "supplier VETRASOL". */
        #[ORM\Column(length: 60)] public readonly string $subject,
        #[ORM\Column(length: 300)] public readonly string $words,
    ) {
        $this->seal = $this->hash = null;
    }

    /** @param list<array{of: string, field: string, was: string, is: string}> $changes */
    public function changed(array $changes): void
    {
        $this->changes = [] === $changes ? null : $changes;
    }

    /** @return list<array{of: string, field: string, was: string, is: string}> */
    public function changes(): array
    {
        return $this->changes ?? [];
    }
}
