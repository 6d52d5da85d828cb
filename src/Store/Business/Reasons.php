<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Doctrine\ORM\EntityManagerInterface;

/** The reasons there are to choose from. */
final readonly class Reasons
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<KnownReason> */
    public function of(ReasonKind $kind): array
    {
        return array_values(
            $this->entities->getRepository(KnownReason::class)->findBy(['kind' => $kind], ['words' => 'ASC']),
        );
    }

    /** @return list<string> */
    public function words(ReasonKind $kind): array
    {
        return array_map(static fn (KnownReason $reason): string => $reason->words, $this->of($kind));
    }
}
