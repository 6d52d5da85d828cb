<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Store\OneTrip;

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

    /** The same, asked along with other things: see wordsIn(). */
    public static function askWords(OneTrip $trip, ReasonKind $kind): void
    {
        $trip->ask('reasons', ['words'], 'words', 'SELECT words FROM reason WHERE kind = ?', [$kind->value]);
    }

    /**
     * @param array<string, list<array<string, string|null>>> $answers
     *
     * @return list<string>
     */
    public static function wordsIn(array $answers): array
    {
        return array_map(static fn (array $row): string => (string) $row['words'], $answers['reasons']);
    }
}
