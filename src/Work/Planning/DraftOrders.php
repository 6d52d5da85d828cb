<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Agreement\Agreements;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\SavedProposal;
use TallBarrel\Work\Ordering\BeginOrder;

/** Turns the chosen proposals into draft orders, one for each supplier. */
final readonly class DraftOrders
{
    public function __construct(
        private EntityManagerInterface $entities,
        private BeginOrder $begin,
        private Agreements $agreements,
        private ClockInterface $clock,
    ) {
    }

    /**
     * Pressed twice, the second finds nothing left to draft.
     *
     * @param list<int>|null $only proposals to choose from; null for all
     *
     * @return list<PurchaseOrder>
     *
     * @throws Refused if nothing is chosen
     */
    public function draft(Person $buyer, ?int $site, ?array $only = null): array
    {
        return $this->entities->wrapInTransaction(function () use ($buyer, $site, $only): array {
            $query = $this->entities
                ->createQueryBuilder()
                ->select('p')
                ->from(SavedProposal::class, 'p')
                ->where('p.chosen = true AND p.draft IS NULL AND p.offer IS NOT NULL AND p.listed = true')
                ->orderBy('p.id');
            if (null !== $site) {
                $query->andWhere('p.site = :site')->setParameter('site', $site);
            }
            if (null !== $only) {
                $query->andWhere('p.id IN (:only)')->setParameter('only', $only);
            }
            /** @var list<SavedProposal> $chosen */
            $chosen = $query->getQuery()->setLockMode(LockMode::PESSIMISTIC_WRITE)->getResult();
            if ([] === $chosen) {
                throw new Refused('Nothing is chosen, or it has been drafted already.');
            }
            $orders = [];
            foreach ($chosen as $proposal) {
                $offer = $proposal->offer() ?? throw new \LogicException('Only proposals with an offer are chosen.');
                $parts = array_filter(
                    [[$offer, $proposal->packs()], ...null === $proposal->splitOff() ? [] : [$proposal->splitOff()]],
                    static fn (array $part): bool => $part[1]->isPositive(),
                );
                $order = null;
                foreach ($parts as [$from, $packs]) {
                    $of = $orders[$from->supplier->id] ??= $this->begin->blank(
                        $from->supplier,
                        $buyer,
                        $proposal->arrival,
                        'Drafted from Reorder',
                    );
                    $this->agreements->attach(
                        OrderLine::fromOffer($of, $from, $proposal->site, $packs),
                        $this->clock->now(),
                    );
                    $order ??= $of;
                }
                if (null !== $order) {
                    $proposal->drafted($order);
                }
            }

            return array_values($orders);
        });
    }
}
