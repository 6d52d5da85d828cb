<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Replenish\PlanningOptions;

/**
 * One calculation of what to buy, over all items and sites.
 *
 * @phpstan-import-type Data from PlanningOptions
 */
#[ORM\Entity]
class PlanningRun
{
    public const RUNNING = 'running';
    public const DONE = 'done';
    public const FAILED = 'failed';

    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Column(length: 10)]
    private string $state = self::RUNNING;

    #[ORM\Column]
    private int $done = 0;

    #[ORM\Column]
    private int $milliseconds = 0;

    #[ORM\Column(length: 300)]
    private string $message = '';

    /** What another choice within the budget could risk less, at most, home currency; 0 where the choice is proven. */
    #[ORM\Column(options: ['default' => 0])]
    private float $cutGap = 0.0;

    /** Seconds since 1970, to tell how long it took. */
    #[ORM\Column(options: ['default' => 0])]
    private float $begun;
    /** @var Data */
    #[ORM\Column(type: 'json')]
    private array $options;

    public function __construct(
        #[ORM\Column(type: 'datetime_immutable')] private \DateTimeImmutable $at,
        PlanningOptions $options,
        #[ORM\Column] private int $itemSites,
        /** How many parts it is shared out in. */
        #[ORM\Column(options: ['default' => 1])] private int $parts,
        /** The last note of what moved before it began to look. */
        #[ORM\Column(type: 'bigint', options: ['default' => 0])] private int $lastMoved,
    ) {
        $this->begun = (float) $at->format('U.u');
        $this->options = $options->toArray();
    }

    public function at(): \DateTimeImmutable
    {
        return $this->at;
    }

    public function options(): PlanningOptions
    {
        return PlanningOptions::fromArray($this->options);
    }

    public function isRunning(): bool
    {
        return self::RUNNING === $this->state;
    }

    public function isDone(): bool
    {
        return self::DONE === $this->state;
    }

    public function state(): string
    {
        return $this->state;
    }

    public function itemSites(): int
    {
        return $this->itemSites;
    }

    public function done(): int
    {
        return $this->done;
    }

    public function milliseconds(): int
    {
        return $this->milliseconds;
    }

    public function parts(): int
    {
        return $this->parts;
    }

    public function lastMoved(): int
    {
        return $this->lastMoved;
    }

    public function begun(): float
    {
        return $this->begun;
    }

    public function message(): string
    {
        return $this->message;
    }

    public function cutGap(): float
    {
        return $this->cutGap;
    }
}
