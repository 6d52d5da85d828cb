<?php

declare(strict_types=1);

namespace TallBarrel\Store\Dock;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Receiving\UnknownState;
use TallBarrel\Store\Site\Site;

/** What came and nobody could place. */
final readonly class UnknownDeliveries
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<UnknownDelivery> those that wait, the oldest first */
    public function waiting(?Site $site): array
    {
        return array_values($this->entities->getRepository(UnknownDelivery::class)->findBy(
            ['state' => UnknownState::Waiting] + (null === $site ? [] : ['site' => $site]),
            ['at' => 'ASC'],
        ));
    }

    /** @return list<UnknownDelivery> those that were decided, the latest first */
    public function decided(?Site $site, int $most): array
    {
        return array_values($this->entities->getRepository(UnknownDelivery::class)->findBy(
            ['state' => [UnknownState::Placed, UnknownState::SentAway]] + (null === $site ? [] : ['site' => $site]),
            ['at' => 'DESC'],
            $most,
        ));
    }

    public function find(int $id): ?UnknownDelivery
    {
        return $this->entities->find(UnknownDelivery::class, $id);
    }
}
