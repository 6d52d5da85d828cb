<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Settling\ChargeKind;
use TallBarrel\Store\Dock\Receipt;

/** Charges that were spread over what came. */
final readonly class LandedCharges
{
    private const MOST = 200;

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    public function byNumber(string $number): ?LandedCharge
    {
        return $this->entities->getRepository(LandedCharge::class)->findOneBy(['number' => $number]);
    }

    public function byKey(string $key): ?LandedCharge
    {
        return $this->entities->getRepository(LandedCharge::class)->findOneBy(['idempotencyKey' => $key]);
    }

    /** @return list<LandedCharge> the latest first */
    public function all(): array
    {
        return $this->found('', []);
    }

    /** @return list<LandedCharge> that stand on some of a receipt */
    public function of(Receipt $receipt): array
    {
        return $this->found(
            'WHERE c.takenBack IS NULL AND EXISTS (SELECT x.id FROM '.LandedChargeLine::class.' x
                JOIN x.came k WHERE x.charge = c AND k.receipt = :receipt)',
            ['receipt' => $receipt],
        );
    }

    /** @return list<LandedCharge> that were put on goods and somebody will bill, the oldest first */
    public function expected(): array
    {
        /** @var list<LandedCharge> $charges */
        $charges = $this->entities
            ->createQuery(
                'SELECT c, s, l, k, r FROM '.LandedCharge::class.' c LEFT JOIN c.supplier s JOIN c.lines l JOIN l.came k
                 JOIN k.receipt r WHERE c.isExpected = true AND c.takenBack IS NULL AND c.kind <> :own ORDER BY c.id',
            )
            ->setParameter('own', ChargeKind::Handling)
            ->getResult();

        return array_slice($charges, 0, self::MOST);
    }

    /**
     * @param array<string, object> $values
     *
     * @return list<LandedCharge>
     */
    private function found(string $where, array $values): array
    {
        /** @var list<LandedCharge> $charges */
        $charges = $this->entities
            ->createQuery(
                'SELECT c, s FROM '.LandedCharge::class.' c LEFT JOIN c.supplier s '.$where.' ORDER BY c.id DESC',
            )
            ->setParameters($values)
            ->setMaxResults(self::MOST)
            ->getResult();

        return $charges;
    }
}
