<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261125210000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'By how much another choice within the budget could be better';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE planning_run ADD cut_gap DOUBLE PRECISION DEFAULT 0 NOT NULL');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE planning_run DROP cut_gap');
    }
}
