<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261125230000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Budgets by category, and by the month of paying';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            'CREATE TABLE category_budget (category VARCHAR(60) NOT NULL, amount NUMERIC(14, 2) NOT NULL,
                PRIMARY KEY (category)) DEFAULT CHARACTER SET utf8mb4',
        );
        $this->addSql("ALTER TABLE business ADD budget_basis VARCHAR(10) DEFAULT 'ordering' NOT NULL");
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE business DROP budget_basis');
        $this->addSql('DROP TABLE category_budget');
    }
}
