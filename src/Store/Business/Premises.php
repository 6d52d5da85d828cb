<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Contracts\Service\ResetInterface;
use TallBarrel\Store\Site\Site;

/** The business and its sites: every page names them, so one query reads both. */
final class Premises implements ResetInterface
{
    private ?Business $business = null;
    /** @var list<Site> */
    private array $sites = [];

    public function __construct(private readonly EntityManagerInterface $entities)
    {
    }

    /** Null before any has been set up. */
    public function business(): ?Business
    {
        $this->read();

        return $this->business;
    }

    /** @return list<Site> those that are not closed, in the order they were opened */
    public function sites(): array
    {
        $this->read();

        return $this->sites;
    }

    public function reset(): void
    {
        $this->business = null;
        $this->sites = [];
    }

    private function read(): void
    {
        if (null !== $this->business && $this->entities->contains($this->business)) {
            return;
        }
        $this->business = null;
        $this->sites = [];
        /** @var list<Business|Site|null> $found */
        $found = $this->entities
            ->createQuery(
                sprintf(
                    'SELECT b, s FROM %s b LEFT JOIN %s s WITH s.id > 0 ORDER BY s.id',
                    Business::class,
                    Site::class,
                ),
            )
            ->getResult();
        foreach ($found as $one) {
            if ($one instanceof Business) {
                $this->business = $one;
            } elseif ($one instanceof Site && !$one->isClosed()) {
                $this->sites[] = $one;
            }
        }
    }
}
