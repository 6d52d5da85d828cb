<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\HttpKernel\Exception\AccessDeniedHttpException;
use TallBarrel\Store\Business\Premises;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Site;

/** The sites that whoever is signed in may see. */
final readonly class SeenSites
{
    public function __construct(private Security $security, private Premises $premises)
    {
    }

    /** @return list<int> ids; empty where they may see all */
    public function ids(): array
    {
        $person = $this->security->getUser();

        return $person instanceof Person ? $person->seenSites() : [];
    }

    public function areAll(): bool
    {
        return [] === $this->ids();
    }

    public function has(?int $site): bool
    {
        return null === $site || $this->areAll() || in_array($site, $this->ids(), true);
    }

    /** @throws AccessDeniedHttpException unless one of these is seen */
    public function mustHave(int ...$sites): void
    {
        foreach ($sites as $site) {
            if ($this->has($site)) {
                return;
            }
        }
        throw new AccessDeniedHttpException('This belongs to a site that you do not see.');
    }

    /** @return list<Site> open ones, in the order they were opened */
    public function sites(): array
    {
        return array_values(array_filter(
            $this->premises->sites(),
            fn (Site $site): bool => $this->has($site->id),
        ));
    }

    /**
     * @template T of array<string, mixed>
     *
     * @param list<T> $rows each with the name of a site
     *
     * @return list<T> those of sites that are seen
     */
    public function only(array $rows): array
    {
        if ($this->areAll()) {
            return $rows;
        }
        $names = array_map(static fn (Site $site): string => $site->name(), $this->sites());

        return array_values(array_filter(
            $rows,
            static fn (array $row): bool => in_array($row['site'] ?? null, $names, true),
        ));
    }
}
