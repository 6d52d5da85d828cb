<?php

declare(strict_types=1);

namespace TallBarrel\Store\Site;

use Doctrine\ORM\EntityManagerInterface;

final readonly class Sites
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    public function byCode(string $code): ?Site
    {
        foreach ($this->withClosed() as $site) {
            if ($site->code === $code) {
                return $site;
            }
        }

        return null;
    }

    public function find(int $id): ?Site
    {
        return $this->entities->find(Site::class, $id);
    }

    /** @return list<Site> those that are not closed, in the order they were opened */
    public function all(): array
    {
        return array_values(array_filter($this->withClosed(), static fn (Site $site): bool => !$site->isClosed()));
    }

    /** @return list<Site> in the order they were opened */
    public function withClosed(): array
    {
        return array_values($this->entities->getRepository(Site::class)->findBy([], ['id' => 'ASC']));
    }
}
