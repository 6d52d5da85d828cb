<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use TallBarrel\Core\Problems;

/** What came of saving a draft: what stands in the way, or what is worth saying. */
final class SavedOrder
{
    /** @var list<string> */
    private array $said = [];

    public function __construct(public readonly Problems $problems)
    {
    }

    public function say(string $words): void
    {
        $this->said[] = $words;
    }

    /** @return list<string> */
    public function said(): array
    {
        return $this->said;
    }
}
