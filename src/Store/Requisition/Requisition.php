<?php

declare(strict_types=1);

namespace TallBarrel\Store\Requisition;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Ordering\RequisitionState;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Quote\QuoteRound;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Type\BigDecimalType;

/** A colleague's wish that something be bought, not yet an order. */
#[ORM\Entity]
#[ORM\Index(columns: ['state'], name: 'requisition_by_state')]
class Requisition
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Version, ORM\Column(type: 'integer')]
    private int $version = 1;

    #[ORM\Column(length: 12, enumType: RequisitionState::class)]
    private RequisitionState $state = RequisitionState::Asked;

    #[ORM\ManyToOne]
    private ?Person $decidedBy = null;

    #[ORM\Column(type: 'datetime_immutable', nullable: true)]
    private ?\DateTimeImmutable $decidedAt = null;

    #[ORM\Column(length: 200)]
    private string $reason = '';

    #[ORM\ManyToOne]
    private ?PurchaseOrder $order = null;

    #[ORM\ManyToOne]
    private ?QuoteRound $round = null;

    /**
     * @param Item|null  $item     null where it is no item of ours
     * @param string     $words    what it is
     * @param BigDecimal $quantity stock units, or pieces of what is no item
     *
     * @throws InvalidValue without words, or unless the quantity is above 0
     */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Person $by,
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $at,
        #[ORM\ManyToOne] public readonly ?Item $item,
        #[ORM\Column(length: 200)] public readonly string $words,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)] public readonly BigDecimal $quantity,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Column(type: 'date_immutable', nullable: true)] public readonly ?\DateTimeImmutable $wantedOn,
        #[ORM\Column(length: 200)] public readonly string $why,
    ) {
        if ('' === trim($words)) {
            throw InvalidValue::because('Say what is wanted.');
        }
        if (!$quantity->isPositive()) {
            throw InvalidValue::because('How many are wanted? Expected above 0.');
        }
    }

    /** @throws Refused once it is decided */
    public function putOn(PurchaseOrder $order, Person $by, \DateTimeImmutable $at): void
    {
        $this->decide(RequisitionState::Ordered, $by, $at);
        $this->order = $order;
    }

    /** @throws Refused once it is decided */
    public function askIn(QuoteRound $round, Person $by, \DateTimeImmutable $at): void
    {
        $this->decide(RequisitionState::Quoted, $by, $at);
        $this->round = $round;
    }

    /** @throws Refused without a reason, or once it is decided */
    public function decline(string $reason, Person $by, \DateTimeImmutable $at): void
    {
        if ('' === trim($reason)) {
            throw new Refused(sprintf('Say why not; %s reads it.', $this->by->firstName()));
        }
        $this->decide(RequisitionState::Declined, $by, $at);
        $this->reason = trim($reason);
    }

    /** @throws Refused to anybody but who asked, and once it is decided */
    public function withdraw(Person $by, \DateTimeImmutable $at): void
    {
        if ($by->id !== $this->by->id) {
            throw new Refused('Only who asked can take it back.');
        }
        $this->decide(RequisitionState::Withdrawn, $by, $at);
    }

    private function decide(RequisitionState $state, Person $by, \DateTimeImmutable $at): void
    {
        if ($this->state->isDecided()) {
            throw new Refused(
                sprintf(
                    '%s decided it already: %s.',
                    $this->decidedBy?->firstName() ?? 'Somebody',
                    $this->state->words(),
                ),
            );
        }
        $this->state = $state;
        $this->decidedBy = $by;
        $this->decidedAt = $at;
    }

    public function state(): RequisitionState
    {
        return $this->state;
    }

    public function decidedBy(): ?Person
    {
        return $this->decidedBy;
    }

    public function decidedAt(): ?\DateTimeImmutable
    {
        return $this->decidedAt;
    }

    public function reason(): string
    {
        return $this->reason;
    }

    public function order(): ?PurchaseOrder
    {
        return $this->order;
    }

    public function round(): ?QuoteRound
    {
        return $this->round;
    }

    public function version(): int
    {
        return $this->version;
    }
}
