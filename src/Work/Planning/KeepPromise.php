<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Quantity\ItemCode;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\CustomerPromise;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Keeping\AllOrNothing;

/** Goods are promised to a customer; the promise is changed, delivered or called off. Planning follows each time. */
final readonly class KeepPromise
{
    public function __construct(
        private EntityManagerInterface $entities,
        private AllOrNothing $whole,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /** @param Problems $problems takes what stands in the way, by field; nothing is saved then */
    public function give(AskedPromise $asked, Person $by, Problems $problems): ?CustomerPromise
    {
        $item = $this->item($asked->item, $problems);
        $this->check($asked, $problems);
        if (null === $item || null === $asked->quantity || null === $asked->day || null === $asked->site) {
            return null;
        }
        [$quantity, $day, $site] = [$asked->quantity, $asked->day, $asked->site];
        $promise = $problems->attempt('quantity', static fn (): CustomerPromise => new CustomerPromise(
            $item,
            $site,
            $quantity,
            $day->setTime(0, 0),
            '',
        ));
        if (null === $promise || !$problems->areNone()) {
            return null;
        }
        $promise->isFor($asked->customer, $asked->reference);
        $this->entities->persist($promise);
        $this->audit->note($by, 'promises', sprintf(
            '%s of %s promised to %s',
            self::figure($asked->quantity),
            $item->code,
            $asked->customer,
        ));
        $this->entities->flush();

        return $promise;
    }

    /** @throws Refused if it was settled already */
    public function change(CustomerPromise $promise, AskedPromise $asked, Person $by, Problems $problems): void
    {
        if (!$promise->isOpen()) {
            throw new Refused(sprintf('This promise was %s already.', $promise->outcome()));
        }
        $this->check($asked, $problems);
        if (null !== $asked->quantity && null !== $asked->day && null !== $asked->site) {
            [$quantity, $day, $site] = [$asked->quantity, $asked->day, $asked->site];
            $problems->apply('quantity', static fn () => $promise->promise($site, $quantity, $day->setTime(0, 0)));
        }
        $promise->isFor($asked->customer, $asked->reference);
        if ($problems->areNone()) {
            $this->audit->note($by, 'promises', sprintf('%s for %s changed', $promise->item->code, $asked->customer));
            $this->entities->flush();
        } else {
            $this->entities->refresh($promise);
        }
    }

    /** @throws Refused if somebody settled it in between */
    public function settle(CustomerPromise $promise, string $outcome, Person $by): void
    {
        $this->whole->take(function () use ($promise, $outcome, $by): void {
            $this->entities->lock($promise, LockMode::PESSIMISTIC_WRITE);
            $this->entities->refresh($promise);
            $promise->settle($outcome, $this->clock->now()->setTime(0, 0));
            $this->audit->note($by, 'promises', sprintf(
                '%s for %s %s',
                $promise->item->code,
                $promise->customer(),
                $promise->outcome(),
            ));
        });
    }

    public function reopen(CustomerPromise $promise, Person $by): void
    {
        $this->whole->take(function () use ($promise, $by): void {
            $promise->reopen();
            $this->audit->note($by, 'promises', sprintf('%s is owed again', $promise->item->code));
        });
    }

    private function item(string $words, Problems $problems): ?Item
    {
        $code = ItemCode::chosen($words);
        $item = $this->entities->getRepository(Item::class)->findOneBy(['code' => $code]);
        $against = null === $item
            ? sprintf('There is no item “%s”.', $code)
            : CustomerPromise::against($item->code, $item->isStocked(), $item->isArchived());
        if (null !== $against) {
            $problems->refuse('item', $against);
        }

        return $item;
    }

    private function check(AskedPromise $asked, Problems $problems): void
    {
        if ('' === trim($asked->customer)) {
            $problems->refuse('customer', 'To whom is it promised?');
        }
        if (null === $asked->quantity) {
            $problems->refuse('quantity', 'How much is promised?');
        }
        if (null === $asked->day) {
            $problems->refuse('day', 'By which day is it promised?');
        }
        if (null === $asked->site) {
            $problems->refuse('site', 'From which site does it go?');
        }
    }

    private static function figure(BigDecimal $quantity): string
    {
        return $quantity->strippedOfTrailingZeros()->toString();
    }
}
