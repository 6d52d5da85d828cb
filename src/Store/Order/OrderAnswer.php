<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Ordering\AnsweredLine;
use TallBarrel\Core\Ordering\AnswerState;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Person\Person;

/**
 * What a supplier answered to an order on its own page: days, quantities and prices line by line, and words.
 *
 * @phpstan-import-type AnsweredData from AnsweredLine
 */
#[ORM\Entity]
#[ORM\Index(columns: ['state'], name: 'order_answer_by_state')]
class OrderAnswer
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** @var list<AnsweredData> */
    #[ORM\Column(type: 'json')]
    private array $answered;

    #[ORM\ManyToOne]
    private ?Person $decidedBy = null;

    /** @param list<AnsweredLine> $lines */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly PurchaseOrder $order,
        #[ORM\Column] public readonly int $revision,
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $at,
        #[ORM\Column(length: 12, enumType: AnswerState::class)] private AnswerState $state,
        array $lines,
        #[ORM\Column(length: 500)] public readonly string $message,
    ) {
        $this->answered = array_map(static fn (AnsweredLine $line): array => $line->toArray(), $lines);
    }

    /** @return list<AnsweredLine> */
    public function lines(): array
    {
        return array_map(AnsweredLine::fromArray(...), $this->answered);
    }

    public function state(): AnswerState
    {
        return $this->state;
    }

    public function decidedBy(): ?Person
    {
        return $this->decidedBy;
    }

    /** @throws Refused if it waits for nobody */
    public function decide(AnswerState $state, ?Person $by): void
    {
        if (AnswerState::Waiting !== $this->state) {
            throw new Refused('Somebody has decided about this answer already, or a later one came.');
        }
        $this->state = $state;
        $this->decidedBy = $by;
    }
}
