<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\ForecastAdjustment;

/** A person knows better than the forecast, for a reason and until a day. */
final readonly class AdjustForecast
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * At all sites.
     *
     * @throws InvalidValue if the day has passed, the reason is missing, or nothing would be left of the forecast
     */
    public function adjust(Item $item, float $percent, \DateTimeImmutable $until, string $reason, Person $person): void
    {
        $this->entities->persist(
            new ForecastAdjustment($item, null, $percent, $until, $reason, $person, $this->clock->now()),
        );
        $this->audit->note(
            $person,
            $item->code,
            sprintf('Forecast %+g %% until %s: %s', $percent, $until->format('j M Y'), $reason),
        );
        $this->entities->flush();
    }

    public function end(Item $item, int $id, Person $person): void
    {
        $adjustment = $this->entities->find(ForecastAdjustment::class, $id);
        if (null !== $adjustment && $adjustment->item === $item) {
            $this->entities->remove($adjustment);
            $this->audit->note($person, $item->code, sprintf('Forecast no longer %+g %%', $adjustment->percent));
            $this->entities->flush();
        }
    }
}
