<?php

declare(strict_types=1);

namespace TallBarrel\Store\Quote;

use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Refused;
use TallBarrel\Store\InBatches;
use TallBarrel\Store\Item\Item;

/** The quote rounds there are. */
final readonly class Rounds
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<QuoteRound> latest first, with what is asked and who is asked loaded */
    public function all(int $most = 100): array
    {
        $query = $this->entities
            ->createQuery('SELECT r FROM '.QuoteRound::class.' r ORDER BY r.id DESC')
            ->setMaxResults($most);
        /** @var list<QuoteRound> $rounds */
        $rounds = InBatches::read($query, QuoteRound::class, 'items', 'quotes')->getResult();

        return $rounds;
    }

    public function byNumber(string $number): ?QuoteRound
    {
        return $this->entities->getRepository(QuoteRound::class)->findOneBy(['number' => $number]);
    }

    public function byToken(string $token): ?Quote
    {
        return 1 === preg_match('/^[0-9a-f]{32}$/', $token)
            ? $this->entities->getRepository(Quote::class)->findOneBy(['token' => $token])
            : null;
    }

    /**
     * For a change, with nobody else changing it meanwhile.
     *
     * @throws Refused if somebody did since it was looked at
     */
    public function lock(int $id, ?int $version = null): QuoteRound
    {
        $round =
            $this->entities->find(QuoteRound::class, $id, LockMode::PESSIMISTIC_WRITE) ??
            throw new Refused('This round is gone.');
        if (null !== $version && $round->version() !== $version) {
            throw new Refused(
                sprintf(
                    '%s was changed by somebody else meanwhile. Look at it once more, then try again.',
                    $round->number,
                ),
            );
        }

        return $round;
    }

    /** @return list<array{quote: Quote, item: QuoteItem}> quotes of open rounds for an item */
    public function openFor(Item $item): array
    {
        /** @var list<QuoteItem> $asked */
        $asked = $this->entities
            ->createQueryBuilder()
            ->select('i', 'r', 'q', 's', 'a')
            ->from(QuoteItem::class, 'i')
            ->join('i.round', 'r')
            ->join('r.quotes', 'q')
            ->join('q.supplier', 's')
            ->leftJoin('q.answers', 'a')
            ->where('i.item = :item AND r.sentAt IS NOT NULL AND r.settledAt IS NULL')
            ->setParameter('item', $item)
            ->orderBy('r.id', 'DESC')
            ->addOrderBy('q.id')
            ->addOrderBy('a.revision')
            ->getQuery()
            ->getResult();
        $quotes = [];
        foreach ($asked as $one) {
            foreach ($one->round->quotes() as $quote) {
                $quotes[] = ['quote' => $quote, 'item' => $one];
            }
        }

        return $quotes;
    }

    /** @return list<Quote> asked, not yet answered, in rounds that are out */
    public function waiting(): array
    {
        /** @var list<Quote> $quotes */
        $quotes = $this->entities
            ->createQueryBuilder()
            ->select('q', 'r')
            ->from(Quote::class, 'q')
            ->join('q.round', 'r')
            ->where("q.state = 'asked' AND r.sentAt IS NOT NULL AND r.settledAt IS NULL")
            ->getQuery()
            ->getResult();

        return $quotes;
    }
}
