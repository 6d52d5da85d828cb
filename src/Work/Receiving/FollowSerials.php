<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Receiving\SerialNumbers;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Stock\Serial;
use TallBarrel\Store\Stock\Serials;
use TallBarrel\Work\Keeping\AllOrNothing;

/** Where pieces with numbers of their own go, and those that were here before they were followed. */
final readonly class FollowSerials
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Serials $serials,
        private AllOrNothing $whole,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @throws InvalidValue if a number stands twice or cannot be read
     * @throws Refused      if one is known, or the item has none
     */
    public function add(Item $item, string $typed, Person $by): void
    {
        $numbers = SerialNumbers::read($typed);
        if (!$item->hasSerials()) {
            throw new Refused(sprintf('Pieces of %s have no serial numbers; its page says so.', $item->code));
        }
        if ([] === $numbers) {
            throw new Refused('Type the numbers, one behind the other.');
        }
        $this->whole->take(function () use ($item, $numbers, $by): void {
            $known = $this->serials->known($item->id, $numbers);
            if (null !== $known) {
                throw new Refused(sprintf('%s is known already.', $known));
            }
            foreach ($numbers as $number) {
                $this->entities->persist(new Serial($item, $number, null));
            }
            $this->audit->note($by, 'item '.$item->code, sprintf('%d serial numbers noted', count($numbers)));
        });
    }

    /**
     * @throws InvalidValue without a word of where to
     * @throws Refused      if it is gone already
     */
    public function gone(Serial $serial, string $to, Person $by): void
    {
        $this->whole->take(function () use ($serial, $to, $by): void {
            $serial->goes($to, $this->clock->now()->setTime(0, 0));
            $this->audit->note($by, 'item '.$serial->item->code, sprintf('%s went to %s', $serial->number, $to));
        });
    }

    public function back(Serial $serial, Person $by): void
    {
        $this->whole->take(function () use ($serial, $by): void {
            $serial->comesBack();
            $this->audit->note($by, 'item '.$serial->item->code, $serial->number.' is here again');
        });
    }
}
