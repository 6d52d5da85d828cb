<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use TallBarrel\Core\Money\AllowanceCharge;
use TallBarrel\Core\Ordering\LineWish;
use TallBarrel\Store\Site\Site;

/** What a person made of a revision in draft. */
final readonly class AmendmentChanges
{
    /**
     * @param array<int, LineWish> $wishes by their place among those of the revision
     * @param Site                 $site   for what is added
     * @param list<AllowanceCharge>     $adjustments all there are to be
     */
    public function __construct(
        public int $version,
        public array $wishes,
        public ?AddedLine $added,
        public Site $site,
        public \DateTimeImmutable $wantedOn,
        public string $note,
        public array $adjustments,
    ) {
    }
}
