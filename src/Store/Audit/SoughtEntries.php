<?php

declare(strict_types=1);

namespace TallBarrel\Store\Audit;

/** What of all that was noted is looked for. */
final readonly class SoughtEntries
{
    /**
     * @param int|null                $person who did it; null for anybody
     * @param string                  $words  in what it was done to, or in what was said of it
     * @param \DateTimeImmutable|null $from   the first day
     * @param \DateTimeImmutable|null $until  the last day
     */
    public function __construct(
        public ?int $person = null,
        public string $words = '',
        public ?\DateTimeImmutable $from = null,
        public ?\DateTimeImmutable $until = null,
    ) {
    }
}
