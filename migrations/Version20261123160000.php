<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/**
 * Policies, planned demand, and what people tell planning.
 */
final class Version20261123160000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Policies by class and item, planned demand, lists, holidays, adjustments; runs staged beside what is '
            .'in force';
    }

    public function up(Schema $schema): void
    {
        // Proposals are calculated anew; nothing in them is worth carrying over.
        $this->addSql(<<<'SQL'
            UPDATE proposal SET draft_id = NULL
        SQL);
        $this->addSql(<<<'SQL'
            DELETE FROM proposal
        SQL);
        $this->addSql(<<<'SQL'
            DELETE FROM planning_run
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE history_verdict (id INT AUTO_INCREMENT NOT NULL, day DATE NOT NULL, keep TINYINT NOT NULL,
                at DATETIME NOT NULL, item_id INT NOT NULL, site_id INT NOT NULL, by_id INT NOT NULL,
                INDEX IDX_7622679126F525E (item_id), INDEX IDX_7622679F6BD1646 (site_id),
                INDEX IDX_7622679AAE72004 (by_id), UNIQUE INDEX verdict_once (item_id, site_id, day),
                PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE planned_demand (id INT AUTO_INCREMENT NOT NULL, quantity NUMERIC(14, 3) NOT NULL,
                day DATE NOT NULL, name VARCHAR(80) NOT NULL, item_id INT NOT NULL, site_id INT NOT NULL,
                by_id INT DEFAULT NULL, INDEX IDX_B5612B99126F525E (item_id), INDEX IDX_B5612B99F6BD1646 (site_id),
                INDEX IDX_B5612B99AAE72004 (by_id), INDEX planned_day (day), PRIMARY KEY (id))
                DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE closure (id INT AUTO_INCREMENT NOT NULL, first_day DATE NOT NULL, last_day DATE NOT NULL,
                words VARCHAR(80) NOT NULL, supplier_id INT DEFAULT NULL, INDEX IDX_48078DD12ADD6D8C (supplier_id),
                PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE put_off (until_day DATE NOT NULL, reason VARCHAR(200) NOT NULL, at DATETIME NOT NULL,
                item_id INT NOT NULL, site_id INT NOT NULL, by_id INT NOT NULL, INDEX IDX_612A4E8D126F525E (item_id),
                INDEX IDX_612A4E8DF6BD1646 (site_id), INDEX IDX_612A4E8DAAE72004 (by_id), PRIMARY KEY (item_id,
                site_id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE item_policy (kind VARCHAR(20) NOT NULL, target VARCHAR(8) NOT NULL,
                service DOUBLE PRECISION NOT NULL, amount DOUBLE PRECISION DEFAULT NULL,
                minimum DOUBLE PRECISION DEFAULT NULL, item_id INT NOT NULL, PRIMARY KEY (item_id))
                DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE order_list (id INT AUTO_INCREMENT NOT NULL, name VARCHAR(60) NOT NULL,
                category VARCHAR(60) NOT NULL, supplier_id INT DEFAULT NULL, site_id INT DEFAULT NULL,
                UNIQUE INDEX UNIQ_939C20F5E237E06 (name), INDEX IDX_939C20F2ADD6D8C (supplier_id),
                INDEX IDX_939C20FF6BD1646 (site_id), PRIMARY KEY (id))
                DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE order_list_item (order_list_id INT NOT NULL, item_id INT NOT NULL,
                INDEX IDX_E652810FCBD4BFC0 (order_list_id), INDEX IDX_E652810F126F525E (item_id),
                PRIMARY KEY (order_list_id, item_id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE forecast_adjustment (id INT AUTO_INCREMENT NOT NULL, percent DOUBLE PRECISION NOT NULL,
                until_day DATE NOT NULL, reason VARCHAR(200) NOT NULL, at DATETIME NOT NULL, item_id INT NOT NULL,
                site_id INT DEFAULT NULL, by_id INT NOT NULL, INDEX IDX_2DAAE8DB126F525E (item_id),
                INDEX IDX_2DAAE8DBF6BD1646 (site_id), INDEX IDX_2DAAE8DBAAE72004 (by_id),
                PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE policy_setting (value_class VARCHAR(1) NOT NULL, pattern VARCHAR(12) NOT NULL,
                kind VARCHAR(20) NOT NULL, target VARCHAR(8) NOT NULL, service DOUBLE PRECISION NOT NULL,
                amount DOUBLE PRECISION DEFAULT NULL, minimum DOUBLE PRECISION DEFAULT NULL, PRIMARY KEY (value_class,
                pattern)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE history_verdict ADD CONSTRAINT FK_7622679126F525E FOREIGN KEY (item_id) REFERENCES item (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE history_verdict ADD CONSTRAINT FK_7622679F6BD1646 FOREIGN KEY (site_id) REFERENCES site (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE history_verdict ADD CONSTRAINT FK_7622679AAE72004 FOREIGN KEY (by_id) REFERENCES person (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE planned_demand ADD CONSTRAINT FK_B5612B99126F525E FOREIGN KEY (item_id) REFERENCES item (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE planned_demand ADD CONSTRAINT FK_B5612B99F6BD1646 FOREIGN KEY (site_id) REFERENCES site (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE planned_demand ADD CONSTRAINT FK_B5612B99AAE72004 FOREIGN KEY (by_id) REFERENCES person (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE closure ADD CONSTRAINT FK_48078DD12ADD6D8C FOREIGN KEY (supplier_id) REFERENCES supplier (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE put_off ADD CONSTRAINT FK_612A4E8D126F525E FOREIGN KEY (item_id) REFERENCES item (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE put_off ADD CONSTRAINT FK_612A4E8DF6BD1646 FOREIGN KEY (site_id) REFERENCES site (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE put_off ADD CONSTRAINT FK_612A4E8DAAE72004 FOREIGN KEY (by_id) REFERENCES person (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE item_policy ADD CONSTRAINT FK_768470D9126F525E FOREIGN KEY (item_id) REFERENCES item (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE order_list ADD CONSTRAINT FK_939C20F2ADD6D8C FOREIGN KEY (supplier_id) REFERENCES supplier (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE order_list ADD CONSTRAINT FK_939C20FF6BD1646 FOREIGN KEY (site_id) REFERENCES site (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE order_list_item ADD CONSTRAINT FK_E652810FCBD4BFC0 FOREIGN KEY (order_list_id) REFERENCES
                order_list (id) ON DELETE CASCADE
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE order_list_item ADD CONSTRAINT FK_E652810F126F525E FOREIGN KEY (item_id) REFERENCES item (id)
                ON DELETE CASCADE
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE forecast_adjustment ADD CONSTRAINT FK_2DAAE8DB126F525E FOREIGN KEY (item_id) REFERENCES item
                (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE forecast_adjustment ADD CONSTRAINT FK_2DAAE8DBF6BD1646 FOREIGN KEY (site_id) REFERENCES site
                (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE forecast_adjustment ADD CONSTRAINT FK_2DAAE8DBAAE72004 FOREIGN KEY (by_id) REFERENCES person
                (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE supplier ADD freight NUMERIC(14, 2) DEFAULT NULL, ADD full_load_kg NUMERIC(10, 1) DEFAULT NULL
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE offer ADD rise_percent NUMERIC(5, 2) DEFAULT NULL, ADD rise_on DATE DEFAULT NULL
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE proposal ADD split_packs NUMERIC(14, 3) DEFAULT NULL, ADD listed TINYINT NOT NULL,
                ADD touched TINYINT DEFAULT 0 NOT NULL, ADD proposed_before NUMERIC(14, 3) DEFAULT NULL,
                ADD value NUMERIC(14, 2) NOT NULL, ADD home_value NUMERIC(14, 2) NOT NULL,
                ADD weight_kg DOUBLE PRECISION NOT NULL, ADD doubt DOUBLE PRECISION NOT NULL,
                ADD at_risk DOUBLE PRECISION NOT NULL, ADD spare DOUBLE PRECISION NOT NULL,
                ADD due_in_days DOUBLE PRECISION DEFAULT NULL, ADD out_in_days INT DEFAULT NULL,
                ADD sales_at_risk DOUBLE PRECISION NOT NULL, ADD leaning DOUBLE PRECISION DEFAULT NULL,
                ADD class VARCHAR(20) NOT NULL, ADD stage VARCHAR(10) NOT NULL, ADD policy VARCHAR(20) NOT NULL,
                ADD odd JSON NOT NULL, ADD moves JSON NOT NULL, ADD cut TINYINT DEFAULT 0 NOT NULL,
                ADD forecast_key VARCHAR(40) DEFAULT '' NOT NULL, ADD split_offer_id INT DEFAULT NULL
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE proposal ADD CONSTRAINT FK_BFE594729F2D1A2B FOREIGN KEY (split_offer_id) REFERENCES offer (id)
        SQL);
        $this->addSql(<<<'SQL'
            CREATE INDEX IDX_BFE594729F2D1A2B ON proposal (split_offer_id)
        SQL);
        $this->addSql(<<<'SQL'
            CREATE INDEX proposal_outline ON proposal (listed, site_id, item_id, offer_id, draft_id, reason, chosen,
                cut, cover_days, home_value, value, weight_kg, doubt, at_risk)
        SQL);
        $this->addSql(<<<'SQL'
            CREATE INDEX proposal_leaning ON proposal (leaning)
        SQL);
        $this->addSql(<<<'SQL'
            CREATE INDEX proposal_out ON proposal (out_in_days, sales_at_risk)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE planning_run ADD state VARCHAR(10) NOT NULL, ADD done INT NOT NULL,
                ADD message VARCHAR(300) NOT NULL, ADD options JSON NOT NULL, DROP cover_days
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE purchase_order ADD counted_on TINYINT DEFAULT NULL
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE item ADD staple TINYINT DEFAULT 0 NOT NULL, ADD shelf_days INT DEFAULT NULL,
                ADD like_factor NUMERIC(6, 3) DEFAULT NULL, ADD sells_like_id INT DEFAULT NULL,
                CHANGE service service NUMERIC(4, 3) DEFAULT NULL
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE item ADD CONSTRAINT FK_1F1B251E747196E7 FOREIGN KEY (sells_like_id) REFERENCES item (id)
        SQL);
        $this->addSql(<<<'SQL'
            CREATE INDEX IDX_1F1B251E747196E7 ON item (sells_like_id)
        SQL);
        // What every item had by default is now for its class to say.
        $this->addSql(<<<'SQL'
            UPDATE item SET service = NULL WHERE service = 0.950
        SQL);
        // A run stages what it finds beside the proposals in force.
        $this->addSql(<<<'SQL'
            CREATE TABLE staged_proposal LIKE proposal
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE staged_proposal DROP INDEX proposal_once, DROP INDEX proposal_outline, DROP INDEX proposal_out,
                DROP INDEX proposal_leaning, ADD UNIQUE INDEX staged_once (run_id, item_id, site_id)
        SQL);
        // Where to begin: more service where it is cheap or matters, by how demand comes.
        $this->addSql(<<<'SQL'
            INSERT INTO policy_setting (value_class, pattern, kind, target, service)
                VALUES ('A', 'smooth', 'order-up-to', 'cycle', 0.97), ('A', 'erratic', 'order-up-to', 'cycle', 0.96),
                ('A', 'intermittent', 'order-up-to', 'cycle', 0.95), ('A', 'lumpy', 'order-up-to', 'cycle', 0.93),
                ('B', 'smooth', 'order-up-to', 'cycle', 0.96), ('B', 'erratic', 'order-up-to', 'cycle', 0.95),
                ('B', 'intermittent', 'order-up-to', 'cycle', 0.94), ('B', 'lumpy', 'order-up-to', 'cycle', 0.92),
                ('C', 'smooth', 'order-up-to', 'cycle', 0.95), ('C', 'erratic', 'order-up-to', 'cycle', 0.94),
                ('C', 'intermittent', 'order-up-to', 'cycle', 0.92), ('C', 'lumpy', 'order-up-to', 'cycle', 0.9)
        SQL);
    }
}
