<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261130090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Sessions, counted tries and presses as rows; what changed beside what was noted, and its chain';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE sessions (sess_id VARBINARY(128) NOT NULL, sess_data LONGBLOB NOT NULL,
            sess_lifetime INT UNSIGNED NOT NULL, sess_time INT UNSIGNED NOT NULL,
            INDEX sess_lifetime_idx (sess_lifetime), PRIMARY KEY (sess_id)) ENGINE = InnoDB');
        $this->addSql('CREATE TABLE cache_items (item_id VARBINARY(255) NOT NULL, item_data MEDIUMBLOB NOT NULL,
            item_lifetime INT UNSIGNED DEFAULT NULL, item_time INT UNSIGNED NOT NULL, PRIMARY KEY (item_id))');
        $this->addSql('CREATE TABLE pressed_act (press VARCHAR(64) NOT NULL, at DATETIME NOT NULL,
            led_to VARCHAR(500) DEFAULT NULL, INDEX pressed_act_at (at), PRIMARY KEY (press))');
        $this->addSql('ALTER TABLE audit_entry ADD changes JSON DEFAULT NULL, ADD seal INT DEFAULT NULL,
            ADD hash VARCHAR(64) DEFAULT NULL');
        $this->addSql('CREATE UNIQUE INDEX UNIQ_2C6AF9872E30AE30 ON audit_entry (seal)');
        $this->addSql('CREATE INDEX audit_at ON audit_entry (at)');
        $this->addSql("ALTER TABLE supplier_contact ADD email_before VARCHAR(180) DEFAULT '' NOT NULL");
        $this->addSql('ALTER TABLE business ADD idle_minutes INT DEFAULT 240 NOT NULL,
            ADD visit_hours INT DEFAULT 12 NOT NULL');
    }
}
