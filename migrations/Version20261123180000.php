<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/**
 * Suppliers side by side: all that an offer costs, quotes, agreements, prices over time.
 */
final class Version20261123180000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Offers with duty, discounts and kinds of break; freight tariffs; quote rounds, agreements and old '
            .'prices';
    }

    public function up(Schema $schema): void
    {
        // A break that raises the price is no longer allowed; nobody gains by one that stands.
        $this->addSql(<<<'SQL'
            DELETE dearer FROM price_break dearer JOIN price_break cheaper
            ON cheaper.offer_id = dearer.offer_id AND cheaper.from_packs < dearer.from_packs
            AND cheaper.price < dearer.price
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE offer_price (id INT AUTO_INCREMENT NOT NULL, steps JSON NOT NULL, kind VARCHAR(12) NOT NULL,
                basis VARCHAR(12) NOT NULL, from_day DATE DEFAULT NULL, source VARCHAR(120) NOT NULL,
                applied TINYINT NOT NULL, offer_id INT NOT NULL, INDEX IDX_49E55F3053C674EE (offer_id),
                INDEX offer_price_by_day (offer_id, from_day), INDEX offer_price_due (applied, from_day),
                PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE quote_answer (id INT AUTO_INCREMENT NOT NULL, revision INT NOT NULL, at DATETIME NOT NULL,
                via VARCHAR(20) NOT NULL, late TINYINT NOT NULL, lead_days INT NOT NULL, valid_until DATE DEFAULT NULL,
                charges NUMERIC(14, 2) DEFAULT NULL, note VARCHAR(1000) NOT NULL, quoted JSON NOT NULL,
                quote_id INT NOT NULL, INDEX IDX_E065E466DB805178 (quote_id), PRIMARY KEY (id))
                DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE quote (id INT AUTO_INCREMENT NOT NULL, state VARCHAR(10) NOT NULL,
                asked_at DATETIME DEFAULT NULL, reminded_at DATETIME DEFAULT NULL, opened_at DATETIME DEFAULT NULL,
                decline_reason VARCHAR(300) NOT NULL, token VARCHAR(40) NOT NULL, round_id INT NOT NULL,
                supplier_id INT NOT NULL, UNIQUE INDEX UNIQ_6B71CBF45F37A13B (token),
                INDEX IDX_6B71CBF4A6005CA0 (round_id), INDEX IDX_6B71CBF42ADD6D8C (supplier_id),
                UNIQUE INDEX quote_once (round_id, supplier_id), PRIMARY KEY (id))
                DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE quote_letter (id INT AUTO_INCREMENT NOT NULL, at DATETIME NOT NULL, ours TINYINT NOT NULL,
                subject VARCHAR(200) NOT NULL, text LONGTEXT NOT NULL, quote_id INT NOT NULL,
                INDEX IDX_B4BA4049DB805178 (quote_id), PRIMARY KEY (id))
                DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE round_file (id INT AUTO_INCREMENT NOT NULL, filename VARCHAR(120) NOT NULL,
                media_type VARCHAR(80) NOT NULL, content MEDIUMBLOB NOT NULL, round_id INT NOT NULL,
                INDEX IDX_292827B0A6005CA0 (round_id), PRIMARY KEY (id))
                DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE quote_item (id INT AUTO_INCREMENT NOT NULL, quantities JSON NOT NULL, position INT NOT NULL,
                description VARCHAR(200) NOT NULL, round_id INT NOT NULL, item_id INT DEFAULT NULL,
                INDEX IDX_8DFC7A94A6005CA0 (round_id), INDEX IDX_8DFC7A94126F525E (item_id),
                PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE quote_round (id INT AUTO_INCREMENT NOT NULL, version INT DEFAULT 1 NOT NULL,
                sent_at DATETIME DEFAULT NULL, settled_at DATETIME DEFAULT NULL, requirements VARCHAR(2000) NOT NULL,
                number VARCHAR(20) NOT NULL, reply_by DATE NOT NULL, wanted_on DATE NOT NULL,
                created_at DATETIME NOT NULL, by_id INT NOT NULL, site_id INT NOT NULL,
                UNIQUE INDEX UNIQ_C811675596901F54 (number), INDEX IDX_C8116755AAE72004 (by_id),
                INDEX IDX_C8116755F6BD1646 (site_id), PRIMARY KEY (id))
                DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE agreement (id INT AUTO_INCREMENT NOT NULL, version INT DEFAULT 1 NOT NULL,
                measure VARCHAR(10) NOT NULL, promised NUMERIC(14, 2) NOT NULL, price NUMERIC(16, 6) DEFAULT NULL,
                minimum_call_off NUMERIC(14, 2) DEFAULT NULL, tolerance_percent NUMERIC(5, 2) NOT NULL,
                first_day DATE NOT NULL, last_day DATE NOT NULL, renewal VARCHAR(300) NOT NULL, ended TINYINT NOT NULL,
                number VARCHAR(20) NOT NULL, category VARCHAR(60) NOT NULL, supplier_id INT NOT NULL,
                item_id INT DEFAULT NULL, UNIQUE INDEX UNIQ_2E655A2496901F54 (number),
                INDEX IDX_2E655A242ADD6D8C (supplier_id), INDEX IDX_2E655A24126F525E (item_id),
                PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE offer_price ADD CONSTRAINT FK_49E55F3053C674EE FOREIGN KEY (offer_id) REFERENCES offer (id)
                ON DELETE CASCADE
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE quote_answer ADD CONSTRAINT FK_E065E466DB805178 FOREIGN KEY (quote_id) REFERENCES quote (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE quote ADD CONSTRAINT FK_6B71CBF4A6005CA0 FOREIGN KEY (round_id) REFERENCES quote_round (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE quote ADD CONSTRAINT FK_6B71CBF42ADD6D8C FOREIGN KEY (supplier_id) REFERENCES supplier (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE quote_letter ADD CONSTRAINT FK_B4BA4049DB805178 FOREIGN KEY (quote_id) REFERENCES quote (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE round_file ADD CONSTRAINT FK_292827B0A6005CA0 FOREIGN KEY (round_id) REFERENCES quote_round (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE quote_item ADD CONSTRAINT FK_8DFC7A94A6005CA0 FOREIGN KEY (round_id) REFERENCES quote_round (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE quote_item ADD CONSTRAINT FK_8DFC7A94126F525E FOREIGN KEY (item_id) REFERENCES item (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE quote_round ADD CONSTRAINT FK_C8116755AAE72004 FOREIGN KEY (by_id) REFERENCES person (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE quote_round ADD CONSTRAINT FK_C8116755F6BD1646 FOREIGN KEY (site_id) REFERENCES site (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE agreement ADD CONSTRAINT FK_2E655A242ADD6D8C FOREIGN KEY (supplier_id) REFERENCES supplier (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE agreement ADD CONSTRAINT FK_2E655A24126F525E FOREIGN KEY (item_id) REFERENCES item (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE supplier_contact ADD role VARCHAR(12) DEFAULT 'orders' NOT NULL
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE supplier ADD end_of_month TINYINT DEFAULT 0 NOT NULL, ADD deposit_percent NUMERIC(5,
                2) DEFAULT '0.00' NOT NULL, ADD instalments VARCHAR(120) DEFAULT '' NOT NULL,
                ADD minimum_kg NUMERIC(10, 1) DEFAULT NULL, ADD minimum_packs INT DEFAULT NULL,
                ADD freight_kind VARCHAR(10) DEFAULT 'flat' NOT NULL,
                ADD freight_steps VARCHAR(200) DEFAULT '' NOT NULL, ADD pallet_kg NUMERIC(10, 1) DEFAULT NULL,
                ADD notes VARCHAR(2000) DEFAULT '' NOT NULL, ADD wants_csv TINYINT DEFAULT 0 NOT NULL,
                ADD paid_through_id INT DEFAULT NULL, ADD buyer_id INT DEFAULT NULL
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE supplier ADD CONSTRAINT FK_9B2A6C7E15D44169 FOREIGN KEY (paid_through_id) REFERENCES supplier
                (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE supplier ADD CONSTRAINT FK_9B2A6C7E6C755722 FOREIGN KEY (buyer_id) REFERENCES person (id)
        SQL);
        $this->addSql(<<<'SQL'
            CREATE INDEX IDX_9B2A6C7E15D44169 ON supplier (paid_through_id)
        SQL);
        $this->addSql(<<<'SQL'
            CREATE INDEX IDX_9B2A6C7E6C755722 ON supplier (buyer_id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE supplier_address ADD role VARCHAR(12) DEFAULT 'order' NOT NULL
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE offer ADD valid_from DATE DEFAULT NULL, ADD description VARCHAR(160) DEFAULT '' NOT NULL,
                ADD stated_content VARCHAR(30) DEFAULT '' NOT NULL, ADD outer_packs VARCHAR(120) DEFAULT '' NOT NULL,
                ADD break_kind VARCHAR(12) DEFAULT 'all-units' NOT NULL,
                ADD break_basis VARCHAR(12) DEFAULT 'quantity' NOT NULL, ADD discounts VARCHAR(40) DEFAULT '' NOT NULL,
                ADD origin VARCHAR(2) DEFAULT '' NOT NULL, ADD tariff_number VARCHAR(12) DEFAULT '' NOT NULL,
                ADD duty_percent NUMERIC(5, 2) DEFAULT '0.00' NOT NULL, ADD inspected TINYINT DEFAULT 0 NOT NULL,
                ADD blocked TINYINT DEFAULT 0 NOT NULL, CHANGE pack_content pack_content NUMERIC(18, 6) NOT NULL
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE business ADD money_percent NUMERIC(5, 2) DEFAULT '7.00' NOT NULL,
                ADD exchange_percent NUMERIC(5, 2) DEFAULT '0.50' NOT NULL
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE exchange_rate ADD source VARCHAR(40) DEFAULT '' NOT NULL
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE order_line ADD agreement_id INT DEFAULT NULL, CHANGE pack_content pack_content NUMERIC(18,
                6) NOT NULL, CHANGE price price NUMERIC(16, 6) NOT NULL
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE order_line ADD CONSTRAINT FK_9CE58EE124890B2B FOREIGN KEY (agreement_id) REFERENCES agreement
                (id)
        SQL);
        $this->addSql(<<<'SQL'
            CREATE INDEX IDX_9CE58EE124890B2B ON order_line (agreement_id)
        SQL);
    }
}
