<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261203090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'What planning finds is not read through again where it is put, and staged rows are found by their run';
    }

    public function up(Schema $schema): void
    {
        $keys = ['84E3FEC4', '126F525E', 'F6BD1646', '53C674EE', 'E2F3C5D1', '9F2D1A2B'];
        $this->addSql('ALTER TABLE staged_proposal '.implode(
            ', ',
            array_map(static fn (string $key): string => "DROP INDEX IDX_BFE59472$key", $keys),
        ));
        foreach (['staged_proposal', 'proposal'] as $table) {
            $this->addSql("ALTER TABLE $table ".implode(', ', array_map(
                static fn (string $text): string => "MODIFY $text LONGTEXT NOT NULL",
                ['explanation', 'forecast', 'facts', 'odd', 'moves'],
            )));
        }
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}
