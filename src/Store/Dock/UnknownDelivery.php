<?php

declare(strict_types=1);

namespace TallBarrel\Store\Dock;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Receiving\UnknownState;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Site;

/** Something that stands at a dock, and nobody knows yet what it belongs to. */
#[ORM\Entity]
#[ORM\Index(columns: ['state', 'at'], name: 'unknown_by_state')]
class UnknownDelivery
{
    private const MOST_PACKAGES = 100_000;

    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Column(length: 10, enumType: UnknownState::class)]
    private UnknownState $state = UnknownState::Waiting;

    #[ORM\ManyToOne]
    private ?Delivery $delivery = null;

    #[ORM\Column(length: 200, options: ['default' => ''])]
    private string $because = '';

    /**
     * @param string $from whom the papers or the driver name; empty where nobody knows
     *
     * @throws InvalidValue if nothing is said of what it is, or there are no packages
     */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Column(length: 300)] public readonly string $what,
        #[ORM\Column(name: 'came_from', length: 80)] public readonly string $from,
        #[ORM\Column] public readonly int $packages,
        #[ORM\Column(length: 40)] public readonly string $noteNumber,
        #[ORM\Column(length: 60)] public readonly string $carrier,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Person $by,
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $at,
    ) {
        if ('' === $what) {
            throw InvalidValue::because('Say what stands there, as well as it can be seen.');
        }
        if ($packages < 1 || $packages > self::MOST_PACKAGES) {
            throw InvalidValue::because(sprintf('%d packages; expected 1 to %d.', $packages, self::MOST_PACKAGES));
        }
    }

    /** @throws Refused if it was decided before */
    public function belongsTo(Delivery $delivery): void
    {
        $this->mustWait();
        $this->state = UnknownState::Placed;
        $this->delivery = $delivery;
    }

    /** @throws Refused without a reason, or if it was decided before */
    public function goesAway(string $because): void
    {
        $this->mustWait();
        $this->because = '' !== $because ? $because : throw new Refused('Say why, and who took it along.');
        $this->state = UnknownState::SentAway;
    }

    /** @throws Refused */
    public function mustWait(): void
    {
        if (UnknownState::Waiting !== $this->state) {
            throw new Refused(sprintf('That is decided already: %s.', $this->state->words()));
        }
    }

    public function state(): UnknownState
    {
        return $this->state;
    }

    public function delivery(): ?Delivery
    {
        return $this->delivery;
    }

    public function because(): string
    {
        return $this->because;
    }
}
