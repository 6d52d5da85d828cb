<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Requisition\Requisition;
use TallBarrel\Store\Requisition\Requisitions;
use TallBarrel\Store\Site\Site;
use TallBarrel\Work\Keeping\AllOrNothing;

/** Anybody's wish that something be bought. */
final readonly class AskForGoods
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Requisitions $requisitions,
        private AllOrNothing $whole,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param BigDecimal|null $quantity in stock units; null where it could not be read
     * @param Problems        $problems takes what stands in the way, by field
     */
    public function ask(
        Person $person,
        string $words,
        ?BigDecimal $quantity,
        Site $site,
        ?\DateTimeImmutable $wantedOn,
        string $why,
        Problems $problems,
    ): ?Requisition {
        $now = $this->clock->now();
        if (null !== $wantedOn && $wantedOn < $now->setTime(0, 0)) {
            $problems->refuse('wanted', sprintf('%s is over; by when is it wanted?', $wantedOn->format('j M Y')));
        }
        if ('' === trim($words)) {
            $problems->refuse('words', 'Say what is wanted.');
        }
        $item = $this->requisitions->meant($words);
        $asked = $problems->attempt(
            'quantity',
            static fn (): Requisition => new Requisition(
                $person,
                $now,
                $item,
                $item?->name() ?? $words,
                $quantity ?? BigDecimal::zero(),
                $site,
                $wantedOn,
                $why,
            ),
        );
        if (null === $asked || !$problems->areNone()) {
            return null;
        }
        $this->entities->persist($asked);
        $this->entities->flush();

        return $asked;
    }

    /** @throws Refused to anybody but who asked, and once it is decided */
    public function takeBack(int $id, Person $person): void
    {
        $this->whole->take(
            fn () => $this->requisitions->lock($id)->withdraw($person, $this->clock->now()),
        );
    }
}
