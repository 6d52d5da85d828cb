<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Store\Dock\ReceiptLine;
use TallBarrel\Store\Item\Item;

/** The pieces with numbers of their own. */
final readonly class Serials
{
    public function __construct(private EntityManagerInterface $entities, private Connection $connection)
    {
    }

    /**
     * @param list<string> $numbers
     *
     * @return string|null one of them that is known already
     */
    public function known(int $item, array $numbers): ?string
    {
        $found = [] === $numbers ? false : $this->connection->fetchOne(
            'SELECT number FROM serial WHERE item_id = ? AND number IN (?) LIMIT 1',
            [$item, $numbers],
            [1 => ArrayParameterType::STRING],
        );

        return is_string($found) ? $found : null;
    }

    /** @return list<Serial> those that are here first, then the latest gone */
    public function of(Item $item, string $words, int $most): array
    {
        $query = $this->entities
            ->createQueryBuilder()
            ->select('s', 'l', 'r')
            ->from(Serial::class, 's')
            ->leftJoin('s.cameWith', 'l')
            ->leftJoin('l.receipt', 'r')
            ->where('s.item = :item')
            ->setParameter('item', $item)
            ->orderBy('s.goneOn')
            ->addOrderBy('s.number')
            ->setMaxResults($most);
        if ('' !== $words) {
            $query
                ->andWhere('s.number LIKE :words OR s.goneTo LIKE :words')
                ->setParameter('words', '%'.addcslashes($words, '%_\\').'%');
        }
        /** @var list<Serial> $serials */
        $serials = $query->getQuery()->getResult();

        return $serials;
    }

    /** One that came with it and is gone; null if all are here. */
    public function letGoWith(ReceiptLine $came): ?Serial
    {
        foreach ($this->entities->getRepository(Serial::class)->findBy(['cameWith' => $came]) as $serial) {
            if (null !== $serial->goneOn()) {
                return $serial;
            }
        }

        return null;
    }

    /** As if they had never come. */
    public function forget(ReceiptLine $came): void
    {
        foreach ($this->entities->getRepository(Serial::class)->findBy(['cameWith' => $came]) as $serial) {
            $this->entities->remove($serial);
        }
    }

    public function find(int $id): ?Serial
    {
        return $this->entities->find(Serial::class, $id);
    }

    /** @return array{int, int} how many are here, and how many there ever were */
    public function count(int $item): array
    {
        /** @var array{here: string|null, all: int} $row */
        $row = $this->connection->fetchAssociative(
            'SELECT SUM(gone_on IS NULL) here, COUNT(*) `all` FROM serial WHERE item_id = ?',
            [$item],
        );

        return [(int) $row['here'], $row['all']];
    }
}
