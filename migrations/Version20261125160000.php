<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** What the last run said of a proposal was kept in words; its lines and remarks are kinds and amounts now. */
final class Version20261125160000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Explanations as kinds and amounts; everything is planned again';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            "UPDATE proposal SET odd = '[]',
                explanation = JSON_SET(explanation, '$.lines', JSON_ARRAY(), '$.notes', JSON_ARRAY()),
                facts = JSON_SET(facts, '$.considered', JSON_ARRAY())",
        );
        $this->addSql('DELETE FROM staged_proposal');
        $this->addSql('INSERT INTO moved_item (item_id) SELECT NULL FROM business');
        $this->addSql('CREATE INDEX movement_latest ON stock_movement (item_id, day)');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP INDEX movement_latest ON stock_movement');
    }
}
