<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Settling\AccountState;
use TallBarrel\Store\Supplier\Supplier;

/** To which accounts suppliers are paid, were and may be. */
final readonly class SupplierAccounts
{
    private const MOST = 300;

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    public function find(int $id): ?SupplierAccount
    {
        return $this->entities->find(SupplierAccount::class, $id);
    }

    public function inForce(Supplier $supplier): ?SupplierAccount
    {
        return $this->entities->getRepository(SupplierAccount::class)->findOneBy(
            ['supplier' => $supplier, 'state' => AccountState::InForce],
            ['id' => 'DESC'],
        );
    }

    /** @return list<SupplierAccount> those that wait first, then the latest first */
    public function all(): array
    {
        /** @var list<SupplierAccount> $accounts */
        $accounts = $this->entities
            ->createQuery(
                'SELECT a, s FROM '.SupplierAccount::class.' a JOIN a.supplier s
                 ORDER BY a.id DESC',
            )
            ->setMaxResults(self::MOST)
            ->getResult();
        usort($accounts, static fn (SupplierAccount $a, SupplierAccount $b): int => [
            AccountState::Asked !== $a->state(), -$a->id,
        ] <=> [AccountState::Asked !== $b->state(), -$b->id]);

        return $accounts;
    }

    /** @return array<int, SupplierAccount> in force, by supplier */
    public function bySupplier(): array
    {
        $found = [];
        foreach ($this->entities->getRepository(SupplierAccount::class)->findBy(
            ['state' => AccountState::InForce],
            ['id' => 'ASC'],
        ) as $account) {
            $found[$account->supplier->id] = $account;
        }

        return $found;
    }
}
