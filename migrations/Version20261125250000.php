<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261125250000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'What a supplier’s invoice may ask beyond what was agreed';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE supplier ADD tolerance_percent NUMERIC(5, 2) DEFAULT NULL,
            ADD tolerance_amount NUMERIC(10, 2) DEFAULT NULL');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE supplier DROP tolerance_percent, DROP tolerance_amount');
    }
}
