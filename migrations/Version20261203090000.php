<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261203090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'What a run stages is looked through when it is put in place, and found by its run alone';
    }

    public function up(Schema $schema): void
    {
        $keys = ['84E3FEC4', '126F525E', 'F6BD1646', '53C674EE', 'E2F3C5D1', '9F2D1A2B'];
        $texts = ['explanation', 'forecast', 'facts', 'odd', 'moves'];
        $this->addSql('ALTER TABLE staged_proposal '.implode(', ', [
            ...array_map(static fn (string $key): string => "DROP INDEX IDX_BFE59472$key", $keys),
            ...array_map(
                static fn (string $text): string => "MODIFY $text LONGTEXT CHARACTER SET utf8mb4
                    COLLATE utf8mb4_bin NOT NULL",
                $texts,
            ),
        ]));
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}
