<?php

declare(strict_types=1);

namespace TallBarrel\Store\Audit;

/** What a press has done already. */
final readonly class DoneBefore
{
    /** @param string|null $ledTo the page that followed; null if the answer never got so far */
    public function __construct(public \DateTimeImmutable $at, public ?string $ledTo)
    {
    }
}
