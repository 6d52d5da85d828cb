<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Problems;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Item\Stocking;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\PlannedNeed;
use TallBarrel\Store\Site\Site;

/** Notes demand that no forecast can see, and takes it out again. */
final readonly class PlanDemand
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * All of it, or nothing where something stands in the way.
     *
     * @param array<int, array{string, BigDecimal|null}> $wanted item code and stock units (null where they could not be
     *      read), by the number of the line
     * @param Problems                                   $problems at day, site, lines
     *
     * @return int how many items are planned
     */
    public function plan(
        string $name,
        ?Site $site,
        ?\DateTimeImmutable $day,
        array $wanted,
        Person $person,
        Problems $problems,
    ): int {
        if (null === $day) {
            $problems->refuse('day', 'Say on which day it is wanted.');
        } elseif ($day->format('Y-m-d') < $this->clock->now()->format('Y-m-d')) {
            $problems->refuse('day', sprintf('%s has passed.', $day->format('j M Y')));
        }
        if (null === $site) {
            $problems->refuse('site', 'Choose a site.');
        }
        $needs = [];
        foreach ($wanted as $number => [$code, $units]) {
            $problems->attempt('lines', function () use (
                $number,
                $code,
                $units,
                $site,
                $day,
                $name,
                $person,
                &$needs
            ): void {
                $item = $this->item($number, $code);
                if (null !== $units && null !== $site && null !== $day) {
                    $this->mustBeStocked($number, $item, $site);
                    $needs[] = new PlannedNeed($item, $site, $units, $day, $name, $person);
                }
            });
        }
        if ([] === $needs && $problems->areNone()) {
            $problems->refuse('lines', 'List what is wanted, one item code and quantity a line.');
        }
        if (!$problems->areNone()) {
            return 0;
        }
        array_map($this->entities->persist(...), $needs);
        $this->audit->note(
            $person,
            'plans',
            sprintf('%s, %s: %d items planned', $name, $day?->format('j M') ?? '', count($needs)),
        );
        $this->entities->flush();

        return count($needs);
    }

    public function takeOut(int $id, Person $person): void
    {
        $need = $this->entities->find(PlannedNeed::class, $id);
        if (null === $need) {
            return;
        }
        $this->audit->note(
            $person,
            'plans',
            sprintf(
                '%s: %s of %s taken out',
                $need->name,
                $need->quantity->strippedOfTrailingZeros(),
                $need->item->code,
            ),
        );
        $this->entities->remove($need);
        $this->entities->flush();
    }

    /** @throws InvalidValue */
    private function item(int $number, string $code): Item
    {
        return $this->entities->getRepository(Item::class)->findOneBy(['code' => $code]) ??
            throw InvalidValue::because(sprintf('Line %d: there is no item %s.', $number, $code));
    }

    /** @throws InvalidValue */
    private function mustBeStocked(int $number, Item $item, Site $site): void
    {
        if (null === $this->entities->find(Stocking::class, ['item' => $item, 'site' => $site])) {
            throw InvalidValue::because(sprintf('Line %d: %s does not stock %s.', $number, $site->name(), $item->code));
        }
    }
}
