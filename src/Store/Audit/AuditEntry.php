<?php

declare(strict_types=1);

namespace TallBarrel\Store\Audit;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Store\Person\Person;

/** Who did what to what, and when. */
#[ORM\Entity(readOnly: true)]
#[ORM\Index(columns: ['subject'], name: 'audit_subject')]
class AuditEntry
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    public function __construct(
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $at,
        #[ORM\ManyToOne] public readonly ?Person $person,
        /** Such as "PO-1048" or "supplier VETRASOL". */
        #[ORM\Column(length: 60)] public readonly string $subject,
        #[ORM\Column(length: 300)] public readonly string $words,
    ) {
    }
}
