<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261202090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'What moved since a day is added up from an index alone';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            'CREATE INDEX movement_since ON stock_movement (day, item_id, site_id, state, lot, quantity)',
        );
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}
