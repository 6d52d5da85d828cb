<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\CurrentBusiness;

/** Everything of the made-up business goes, in one transaction; what is left is as on the first evening. */
final readonly class TakeDemoAway
{
    private const STAYS = ['doctrine_migration_versions', 'reason'];

    public function __construct(
        private EntityManagerInterface $entities,
        private Connection $connection,
        private CurrentBusiness $business,
        private Leftovers $leftovers,
        private AllOrNothing $whole,
        private Audit $audit,
    ) {
    }

    /** @throws Refused if the business is not the demo */
    public function take(): void
    {
        if (false === $this->business->find()?->isDemo()) {
            throw new Refused('This is your own business, not the demo; it cannot be taken away.');
        }
        /** @var list<string> $tables */
        $tables = $this->connection->fetchFirstColumn(
            "SELECT table_name FROM information_schema.tables
             WHERE table_schema = DATABASE() AND table_type = 'BASE TABLE'",
        );
        $this->connection->executeStatement('SET FOREIGN_KEY_CHECKS = 0');
        try {
            $this->whole->take(function () use ($tables): void {
                foreach (array_diff($tables, self::STAYS) as $table) {
                    $this->connection->executeStatement('DELETE FROM
                        '.$this->connection->quoteSingleIdentifier($table));
                }
                $this->entities->clear();
                // Whoever starts the application again finds that the demo is not wanted.
                $this->audit->note(null, 'business', 'Open for a business of one’s own');
            });
        } finally {
            $this->connection->executeStatement('SET FOREIGN_KEY_CHECKS = 1');
        }
        $this->leftovers->sweep();
    }
}
