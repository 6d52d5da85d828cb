<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261125200000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'A level is exceeded for a lower price only where the owner allows it; everything is planned again';
    }

    public function up(Schema $schema): void
    {
        foreach (['policy_setting', 'item_policy'] as $table) {
            $this->addSql("ALTER TABLE $table ADD beyond TINYINT(1) DEFAULT 0 NOT NULL");
        }
        $this->addSql('INSERT INTO moved_item (item_id) SELECT NULL FROM business');
    }

    public function down(Schema $schema): void
    {
        foreach (['policy_setting', 'item_policy'] as $table) {
            $this->addSql("ALTER TABLE $table DROP beyond");
        }
    }
}
