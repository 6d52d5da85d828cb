<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Receiving\Severity;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Store\Type\BigDecimalType;

/** What came of looking at goods before they were sold. */
#[ORM\Entity(readOnly: true)]
class Inspection
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Item $item,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Site $site,
        /** Whose goods they were, as the receipt of the lot says. */
        #[ORM\ManyToOne] public readonly ?Supplier $supplier,
        #[ORM\Column(length: 40)] public readonly string $lot,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)] public readonly BigDecimal $units,
        #[ORM\Column] public readonly int $looked,
        #[ORM\Column] public readonly int $bad,
        #[ORM\Column] public readonly bool $accepted,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Person $by,
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $at,
        #[ORM\Column(length: 10, enumType: Severity::class, options: ['default' => 'normal'])]
        public readonly Severity $severity,
        /** From when it waited for that. */
        #[ORM\Column(type: 'date_immutable', nullable: true)] public readonly ?\DateTimeImmutable $since = null,
    ) {
    }
}
