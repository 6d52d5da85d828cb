<?php

declare(strict_types=1);

namespace TallBarrel\Store\Item;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Planning\Moves;
use TallBarrel\Store\Planning\PlanningRestsOnIt;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Type\BigDecimalType;

/** Stock promised to a customer. Planning counts it until it is handed over or called off. */
#[ORM\Entity]
#[ORM\Index(name: 'promise_open', columns: ['settled_on', 'wanted_on'])]
class CustomerPromise implements PlanningRestsOnIt
{
    public const DELIVERED = 'delivered';
    public const CANCELLED = 'cancelled';

    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Version, ORM\Column(type: 'integer')]
    private int $version = 1;

    #[ORM\Column(length: 120, options: ['default' => ''])]
    private string $customer = '';

    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $settledOn = null;

    #[ORM\Column(length: 10, options: ['default' => ''])]
    private string $outcome = '';

    /** @throws InvalidValue */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Item $item,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] private Site $site,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)] private BigDecimal $quantity,
        #[ORM\Column(type: 'date_immutable')] private \DateTimeImmutable $wantedOn,
        #[ORM\Column(length: 40)] private string $reference,
    ) {
        $this->promise($site, $quantity, $wantedOn);
    }

    /** Why an item cannot be promised to anybody; null where it can. */
    public static function against(string $code, bool $isStocked, bool $isArchived): ?string
    {
        return match (true) {
            !$isStocked => sprintf('%s is a service or an expense; only goods can be promised.', $code),
            $isArchived => sprintf('%s is archived; take it up again first.', $code),
            default => null,
        };
    }

    /** @throws InvalidValue for nothing, or a part of what is counted in whole units */
    public function promise(Site $site, BigDecimal $quantity, \DateTimeImmutable $wantedOn): void
    {
        if (!$quantity->isPositive()) {
            throw InvalidValue::because(sprintf('“%s” is no quantity to promise; expected more than 0.', $quantity));
        }
        if ($quantity->strippedOfTrailingZeros()->getScale() > 0 && !$this->item->unit->isDivisible()) {
            throw InvalidValue::because(
                sprintf('%s is counted in whole units; “%s” is none.', $this->item->code, $quantity),
            );
        }
        $this->site = $site;
        $this->quantity = $quantity;
        $this->wantedOn = $wantedOn;
    }

    public function isFor(string $customer, string $reference): void
    {
        $this->customer = trim($customer);
        $this->reference = trim($reference);
    }

    /** @throws Refused if it was settled already */
    public function settle(string $outcome, \DateTimeImmutable $on): void
    {
        if (!$this->isOpen()) {
            throw new Refused(sprintf('This promise was %s already.', $this->outcome));
        }
        $this->outcome = self::DELIVERED === $outcome ? self::DELIVERED : self::CANCELLED;
        $this->settledOn = $on;
    }

    /** A slip in settling it is taken back. */
    public function reopen(): void
    {
        $this->outcome = '';
        $this->settledOn = null;
    }

    public function isOpen(): bool
    {
        return null === $this->settledOn;
    }

    public function site(): Site
    {
        return $this->site;
    }

    public function quantity(): BigDecimal
    {
        return $this->quantity;
    }

    public function wantedOn(): \DateTimeImmutable
    {
        return $this->wantedOn;
    }

    public function reference(): string
    {
        return $this->reference;
    }

    public function customer(): string
    {
        return $this->customer;
    }

    public function outcome(): string
    {
        return $this->outcome;
    }

    public function settledOn(): ?\DateTimeImmutable
    {
        return $this->settledOn;
    }

    public function version(): int
    {
        return $this->version;
    }

    public function moves(): Moves
    {
        return Moves::items($this->item);
    }
}
