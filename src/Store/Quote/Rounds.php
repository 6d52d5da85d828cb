<?php

declare(strict_types=1);

namespace TallBarrel\Store\Quote;

use Doctrine\DBAL\LockMode;
use Doctrine\DBAL\ParameterType;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Refused;

/** The quote rounds there are. */
final readonly class Rounds
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<RoundRow> latest first */
    public function rows(int $most = 100): array
    {
        /**
         * @var list<array{number: string, began_by: string, created_at: string, reply_by: string, wanted_on: string,
         *      sent_at: string|null, settled_at: string|null, first: string|null, items: int, asked: int,
         *      answered: int, declined: int}> $rows
         */
        $rows = $this->entities->getConnection()->fetchAllAssociative(
            "SELECT r.number, b.name began_by, r.created_at, r.reply_by, r.wanted_on, r.sent_at, r.settled_at,
                (SELECT i.description FROM quote_item i WHERE i.round_id = r.id ORDER BY i.position LIMIT 1) first,
                (SELECT COUNT(*) FROM quote_item i WHERE i.round_id = r.id) items, COUNT(q.id) asked,
                COUNT(IF(q.state <> 'declined' AND EXISTS (SELECT 1 FROM quote_answer a WHERE a.quote_id = q.id), 1,
                    NULL)) answered, COUNT(IF(q.state = 'declined', 1, NULL)) declined
             FROM (SELECT * FROM quote_round ORDER BY id DESC LIMIT ?) r JOIN person b ON b.id = r.by_id
             LEFT JOIN quote q ON q.round_id = r.id GROUP BY r.id ORDER BY r.id DESC",
            [$most],
            [ParameterType::INTEGER],
        );
        $at = static fn (?string $time): ?\DateTimeImmutable => null === $time ? null : new \DateTimeImmutable($time);

        return array_map(static fn (array $row): RoundRow => new RoundRow(
            $row['number'],
            QuoteRound::named($row['first'] ?? '', $row['items']),
            explode(' ', $row['began_by'])[0],
            new \DateTimeImmutable($row['created_at']),
            new \DateTimeImmutable($row['reply_by']),
            new \DateTimeImmutable($row['wanted_on']),
            null === $row['sent_at'],
            $at($row['settled_at']),
            $row['asked'],
            $row['answered'],
            $row['declined'],
        ), $rows);
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
