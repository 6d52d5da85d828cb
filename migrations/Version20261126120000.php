<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261126120000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'A business of one’s own: what is kept of items, places, people, promises and files';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE person_link (id INT AUTO_INCREMENT NOT NULL, used_at DATETIME DEFAULT NULL, purpose
            VARCHAR(12) NOT NULL, hash VARCHAR(64) NOT NULL, until DATETIME NOT NULL, person_id INT NOT NULL,
            UNIQUE INDEX UNIQ_BC4A1DDAD1B862B8 (hash), INDEX IDX_BC4A1DDA217BBB47 (person_id), PRIMARY KEY (id))');
        $this->addSql('CREATE TABLE visit (id INT AUTO_INCREMENT NOT NULL, seen_at DATETIME NOT NULL, ended_at DATETIME
            DEFAULT NULL, started_at DATETIME NOT NULL, device VARCHAR(200) NOT NULL, address VARCHAR(45) NOT
            NULL, person_id INT NOT NULL, INDEX IDX_437EE939217BBB47 (person_id), PRIMARY KEY (id))');
        $this->addSql('CREATE TABLE own_value (thing INT NOT NULL, content VARCHAR(200) NOT NULL, field_id INT NOT NULL,
            INDEX IDX_3E42E0E1443707B0 (field_id), PRIMARY KEY (field_id, thing))');
        $this->addSql('CREATE TABLE picture (id INT AUTO_INCREMENT NOT NULL, mime VARCHAR(20) NOT NULL, content '
            .'MEDIUMBLOB
            NOT NULL, PRIMARY KEY (id))');
        $this->addSql('CREATE TABLE own_field (id INT AUTO_INCREMENT NOT NULL, choices JSON NOT NULL, given_up TINYINT
            DEFAULT 0 NOT NULL, thing VARCHAR(10) NOT NULL, label VARCHAR(40) NOT NULL, kind VARCHAR(10) NOT
            NULL, on_paper TINYINT DEFAULT 0 NOT NULL, UNIQUE INDEX own_field_label (thing, label), PRIMARY KEY
            (id))');
        $this->addSql('CREATE TABLE delivery_place (id INT AUTO_INCREMENT NOT NULL, name VARCHAR(80) NOT NULL, address
            VARCHAR(200) NOT NULL, UNIQUE INDEX UNIQ_6416B55F5E237E06 (name), PRIMARY KEY (id))');
        $this->addSql('CREATE TABLE known_heading (kind VARCHAR(20) NOT NULL, heading VARCHAR(80) NOT NULL, meaning
            VARCHAR(40) NOT NULL, PRIMARY KEY (kind, heading))');
        $this->addSql('CREATE TABLE item_pack (id INT AUTO_INCREMENT NOT NULL, name VARCHAR(20) NOT NULL, quantity
            NUMERIC(14, 3) NOT NULL, gtin VARCHAR(14) DEFAULT NULL, item_id INT NOT NULL, UNIQUE INDEX
            UNIQ_5FEE1AD8CA784C9B (gtin), UNIQUE INDEX item_pack_name (item_id, name), INDEX
            IDX_5FEE1AD8126F525E (item_id), PRIMARY KEY (id))');
        $this->addSql('CREATE TABLE category (id INT AUTO_INCREMENT NOT NULL, name VARCHAR(60) NOT NULL, parent_id INT
            DEFAULT NULL, UNIQUE INDEX UNIQ_64C19C15E237E06 (name), INDEX IDX_64C19C1727ACA70 (parent_id),
            PRIMARY KEY (id))');
        $this->addSql('ALTER TABLE person_link ADD CONSTRAINT FK_BC4A1DDA217BBB47 FOREIGN KEY (person_id) REFERENCES '
            .'person
            (id) ON DELETE CASCADE');
        $this->addSql('ALTER TABLE visit ADD CONSTRAINT FK_437EE939217BBB47 FOREIGN KEY (person_id) REFERENCES person '
            .'(id)
            ON DELETE CASCADE');
        $this->addSql('ALTER TABLE own_value ADD CONSTRAINT FK_3E42E0E1443707B0 FOREIGN KEY (field_id) REFERENCES '
            .'own_field
            (id) ON DELETE CASCADE');
        $this->addSql('ALTER TABLE item_pack ADD CONSTRAINT FK_5FEE1AD8126F525E FOREIGN KEY (item_id) REFERENCES item '
            .'(id)');
        $this->addSql('ALTER TABLE category ADD CONSTRAINT FK_64C19C1727ACA70 FOREIGN KEY (parent_id) REFERENCES '
            .'category
            (id)');
        $this->addSql('ALTER TABLE supplier ADD archived_on DATE DEFAULT NULL');
        $this->addSql('ALTER TABLE person ADD blocked_at DATETIME DEFAULT NULL, ADD handles_all TINYINT DEFAULT 1 NOT '
            .'NULL,
            ADD code_secret VARCHAR(64) DEFAULT NULL, ADD last_code_step BIGINT DEFAULT NULL, ADD site_id INT
            DEFAULT NULL, ADD approver_id INT DEFAULT NULL');
        $this->addSql('ALTER TABLE person ADD CONSTRAINT FK_34DCD176F6BD1646 FOREIGN KEY (site_id) REFERENCES site '
            .'(id)');
        $this->addSql('ALTER TABLE person ADD CONSTRAINT FK_34DCD176BB23766C FOREIGN KEY (approver_id) REFERENCES person
            (id)');
        $this->addSql('CREATE INDEX IDX_34DCD176F6BD1646 ON person (site_id)');
        $this->addSql('CREATE INDEX IDX_34DCD176BB23766C ON person (approver_id)');
        $this->addSql("ALTER TABLE offer ADD manufacturer VARCHAR(120) DEFAULT '' NOT NULL, ADD packing VARCHAR(200)
            DEFAULT '' NOT NULL");
        $this->addSql("ALTER TABLE business ADD country VARCHAR(2) DEFAULT '' NOT NULL, ADD demo TINYINT DEFAULT 0 NOT
            NULL, ADD sentences JSON DEFAULT '[]' NOT NULL, ADD own_things JSON DEFAULT '[]' NOT NULL,
                ADD rights JSON DEFAULT '{}' NOT NULL,
                ADD paper_foot VARCHAR(300) DEFAULT '' NOT NULL, ADD logo_id INT DEFAULT NULL");
        $this->addSql('ALTER TABLE business ADD CONSTRAINT FK_8D36E38F98F144A FOREIGN KEY (logo_id) REFERENCES '
            .'picture (id)');
        $this->addSql('CREATE INDEX IDX_8D36E38F98F144A ON business (logo_id)');
        $this->addSql('ALTER TABLE number_series ADD prefix VARCHAR(8) DEFAULT NULL, ADD by_year TINYINT DEFAULT 0 NOT
            NULL, ADD year INT DEFAULT NULL');
        $this->addSql("ALTER TABLE site ADD kind VARCHAR(10) DEFAULT 'depot' NOT NULL, ADD closed_on DATE DEFAULT "
            .'NULL, ADD
            supplied_by_id INT DEFAULT NULL');
        $this->addSql('ALTER TABLE site ADD CONSTRAINT FK_694309E477F28BDA FOREIGN KEY (supplied_by_id) REFERENCES site
            (id)');
        $this->addSql('CREATE INDEX IDX_694309E477F28BDA ON site (supplied_by_id)');
        $this->addSql("ALTER TABLE bin ADD kind VARCHAR(10) DEFAULT 'shelf' NOT NULL");
        $this->addSql("ALTER TABLE import_run ADD layout JSON DEFAULT '{}' NOT NULL, ADD mapping JSON DEFAULT '{}' NOT
            NULL, ADD mended JSON DEFAULT '[]' NOT NULL");
        $this->addSql('ALTER TABLE customer_promise ADD version INT DEFAULT 1 NOT NULL, ADD customer VARCHAR(120) '
            ."DEFAULT
            '' NOT NULL, ADD settled_on DATE DEFAULT NULL, ADD outcome VARCHAR(10) DEFAULT '' NOT NULL");
        $this->addSql('CREATE INDEX promise_open ON customer_promise (settled_on, wanted_on)');
        $this->addSql('ALTER TABLE item ADD stocked TINYINT DEFAULT 1 NOT NULL, ADD further_names VARCHAR(300) '
            ."DEFAULT ''
            NOT NULL, ADD volume NUMERIC(12, 3) DEFAULT NULL, ADD customs_number VARCHAR(20) DEFAULT '' NOT
            NULL, ADD origin VARCHAR(2) DEFAULT '' NOT NULL, ADD notes VARCHAR(2000) DEFAULT '' NOT NULL, ADD
            caution VARCHAR(300) DEFAULT '' NOT NULL, ADD archived_on DATE DEFAULT NULL, ADD picture_id INT
            DEFAULT NULL");
        $this->addSql('ALTER TABLE item ADD CONSTRAINT FK_1F1B251EEE45BDBF FOREIGN KEY (picture_id) REFERENCES '
            .'picture (id)');
        $this->addSql('CREATE INDEX IDX_1F1B251EEE45BDBF ON item (picture_id)');
        foreach (['invoice', 'invoice_line', 'category_budget'] as $table) {
            $this->addSql("ALTER TABLE {$table} CONVERT TO CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci");
        }
        $this->addSql("UPDATE business SET demo = 1 WHERE name = 'Larkmoor Bee Supply'");
        $this->addSql("INSERT INTO category (name) SELECT DISTINCT category FROM item WHERE category <> ''");
        $this->addSql('CREATE TABLE site_policy (kind VARCHAR(20) NOT NULL, target VARCHAR(8) NOT NULL,
            service DOUBLE PRECISION NOT NULL, amount DOUBLE PRECISION DEFAULT NULL,
            minimum DOUBLE PRECISION DEFAULT NULL, beyond TINYINT DEFAULT 0 NOT NULL, item_id INT NOT NULL,
            site_id INT NOT NULL, INDEX IDX_80D3AB49126F525E (item_id), INDEX IDX_80D3AB49F6BD1646 (site_id),
            PRIMARY KEY (item_id, site_id))');
        $this->addSql('ALTER TABLE site_policy
            ADD CONSTRAINT FK_SITE_POLICY_ITEM FOREIGN KEY (item_id) REFERENCES item (id),
            ADD CONSTRAINT FK_SITE_POLICY_SITE FOREIGN KEY (site_id) REFERENCES site (id)');
        // What customers still wait for.
        $this->addSql(
            'CREATE VIEW open_promise AS
                SELECT id, item_id, site_id, quantity, wanted_on FROM customer_promise WHERE settled_on IS NULL',
        );
        // What an archived supplier once asked for is offered no longer.
        $this->addSql(
            "CREATE OR REPLACE VIEW offer_in_force AS
                SELECT o.id, o.supplier_id, o.item_id, COALESCE(o.valid_from, '1000-01-01') from_day,
                COALESCE(o.valid_until, '9999-12-31') until_day
                FROM offer o JOIN supplier s ON s.id = o.supplier_id AND s.archived_on IS NULL WHERE o.blocked = 0",
        );
        // Where planning looks: what a site stocks, and what it only promised.
        $this->addSql(
            'CREATE VIEW planned_place AS
                SELECT t.item_id, t.site_id, 1 stocked FROM stocking t JOIN item i ON i.id = t.item_id
                    JOIN site s ON s.id = t.site_id
                    WHERE i.archived_on IS NULL AND i.stocked = 1 AND s.closed_on IS NULL
                UNION ALL SELECT DISTINCT p.item_id, p.site_id, 0 FROM open_promise p
                    JOIN item i ON i.id = p.item_id
                    WHERE i.archived_on IS NULL AND i.stocked = 1 AND NOT EXISTS
                        (SELECT 1 FROM stocking t WHERE t.item_id = p.item_id AND t.site_id = p.site_id)',
        );
    }
}
