<?php

declare(strict_types=1);

namespace TallBarrel\Store\Quote;

/** One quote round as a line of a list: read only, without what is asked and who. */
final readonly class RoundRow
{
    /**
     * @param string $by       the first name of who began it
     * @param int    $asked    suppliers
     * @param int    $answered of them, whether won, lost or still open
     * @param int    $declined of them
     */
    public function __construct(
        public string $number,
        public string $subject,
        public string $by,
        public \DateTimeImmutable $createdAt,
        public \DateTimeImmutable $replyBy,
        public \DateTimeImmutable $wantedOn,
        public bool $isDraft,
        public ?\DateTimeImmutable $settledAt,
        public int $asked,
        public int $answered,
        public int $declined,
    ) {
    }

    public function isSettled(): bool
    {
        return null !== $this->settledAt;
    }

    public function isOpen(): bool
    {
        return !$this->isDraft && !$this->isSettled();
    }

    public function isLate(\DateTimeImmutable $at): bool
    {
        return $at->format('Y-m-d') > $this->replyBy->format('Y-m-d');
    }
}
