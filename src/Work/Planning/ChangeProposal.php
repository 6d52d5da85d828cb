<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\PutOff;
use TallBarrel\Store\Planning\SavedProposal;

/** What a person makes of a proposal. */
final class ChangeProposal
{
    /** @var array<string, ExchangeRate>|null */
    private ?array $inForce = null;

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Rates $rates,
        private readonly ClockInterface $clock,
    ) {
    }

    /**
     * @throws InvalidValue|Refused
     */
    public function order(SavedProposal $proposal, BigDecimal $packs, bool $chosen): void
    {
        if (!$packs->isEqualTo($proposal->packs())) {
            $proposal->order($packs, $this->rate($proposal->offer()));
        }
        if ($chosen !== $proposal->isChosen() && $packs->isPositive()) {
            $proposal->choose($chosen);
        }
    }

    /** @throws Refused */
    public function buyFrom(SavedProposal $proposal, Offer $offer): void
    {
        $proposal->buyFrom($offer, $this->rate($offer));
    }

    /** @throws InvalidValue|Refused */
    public function split(SavedProposal $proposal, Offer $other, BigDecimal $packs): void
    {
        $proposal->split($other, $packs, $this->rate($proposal->offer()));
    }

    /** @throws InvalidValue if the day has passed */
    public function putOff(SavedProposal $proposal, \DateTimeImmutable $until, string $reason, Person $by): void
    {
        $now = $this->clock->now();
        $known = $this->entities->find(PutOff::class, ['item' => $proposal->item, 'site' => $proposal->site]);
        if (null === $known) {
            $this->entities->persist(new PutOff($proposal->item, $proposal->site, $until, $reason, $by, $now));
        } else {
            $known->until($until, $reason, $by, $now);
        }
        if (null === $proposal->draft()) {
            $proposal->choose(false);
        }
    }

    public function takeUp(SavedProposal $proposal): void
    {
        $known = $this->entities->find(PutOff::class, ['item' => $proposal->item, 'site' => $proposal->site]);
        if (null !== $known) {
            $this->entities->remove($known);
        }
        if (null === $proposal->draft() && $proposal->packs()->isPositive()) {
            $proposal->choose(true);
        }
    }

    private function rate(?Offer $offer): ?ExchangeRate
    {
        $this->inForce ??= $this->rates->allOn($this->clock->now());

        return null === $offer ? null : $this->inForce[$offer->supplier->currency()->code] ?? null;
    }
}
