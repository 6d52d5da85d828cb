<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261125180000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'A budget of its own for a month; everything is planned again';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE month_budget (month CHAR(7) NOT NULL, amount NUMERIC(14, 2) NOT NULL,
            PRIMARY KEY(month))
                DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        // What waiting costs is measured anew.
        $this->addSql('INSERT INTO moved_item (item_id) SELECT NULL FROM business');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE month_budget');
    }
}
