<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/**
 * The first schema.
 */
final class Version20261123120000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Everything the whole job needs once';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE audit_entry (
              id INT AUTO_INCREMENT NOT NULL,
              at DATETIME NOT NULL,
              subject VARCHAR(60) NOT NULL,
              words VARCHAR(300) NOT NULL,
              person_id INT DEFAULT NULL,
              INDEX IDX_2C6AF987217BBB47 (person_id),
              INDEX audit_subject (subject),
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE bin (
              id INT AUTO_INCREMENT NOT NULL,
              code VARCHAR(20) NOT NULL,
              site_id INT NOT NULL,
              INDEX IDX_AA275AEDF6BD1646 (site_id),
              UNIQUE INDEX bin_code (site_id, code),
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE business (
              id INT NOT NULL,
              name VARCHAR(120) NOT NULL,
              address VARCHAR(200) NOT NULL,
              tax_number VARCHAR(40) NOT NULL,
              currency VARCHAR(3) NOT NULL,
              order_cost NUMERIC(10, 2) NOT NULL,
              holding_percent NUMERIC(5, 2) NOT NULL,
              monthly_budget NUMERIC(14, 2) DEFAULT NULL,
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE customer_promise (
              id INT AUTO_INCREMENT NOT NULL,
              quantity NUMERIC(14, 3) NOT NULL,
              wanted_on DATE NOT NULL,
              reference VARCHAR(40) NOT NULL,
              item_id INT NOT NULL,
              site_id INT NOT NULL,
              INDEX IDX_87D1872E126F525E (item_id),
              INDEX IDX_87D1872EF6BD1646 (site_id),
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE delivery (
              id INT AUTO_INCREMENT NOT NULL,
              version INT DEFAULT 1 NOT NULL,
              booked_at DATETIME DEFAULT NULL,
              note_number VARCHAR(40) NOT NULL,
              arrived_at DATETIME NOT NULL,
              supplier_id INT NOT NULL,
              site_id INT NOT NULL,
              INDEX IDX_3781EC102ADD6D8C (supplier_id),
              INDEX IDX_3781EC10F6BD1646 (site_id),
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE delivery_line (
              id INT AUTO_INCREMENT NOT NULL,
              counted NUMERIC(14, 3) DEFAULT NULL,
              close_short TINYINT NOT NULL,
              lot VARCHAR(40) NOT NULL,
              expires_on DATE DEFAULT NULL,
              expected NUMERIC(14, 3) DEFAULT NULL,
              delivery_id INT NOT NULL,
              line_id INT NOT NULL,
              INDEX IDX_887C6C12136921 (delivery_id),
              INDEX IDX_887C6C4D7B7542 (line_id),
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE exchange_rate (
              currency VARCHAR(3) NOT NULL,
              day DATE NOT NULL,
              foreign_for_one NUMERIC(18, 8) NOT NULL,
              PRIMARY KEY (currency, day)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE import_run (
              id INT AUTO_INCREMENT NOT NULL,
              state VARCHAR(12) NOT NULL,
              total_rows INT NOT NULL,
              done INT NOT NULL,
              bad_rows INT NOT NULL,
              problems JSON NOT NULL,
              sample JSON NOT NULL,
              message VARCHAR(500) NOT NULL,
              kind VARCHAR(20) NOT NULL,
              filename VARCHAR(200) NOT NULL,
              path VARCHAR(200) NOT NULL,
              at DATETIME NOT NULL,
              by_id INT NOT NULL,
              INDEX IDX_C41B0440AAE72004 (by_id),
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE item (
              id INT AUTO_INCREMENT NOT NULL,
              version INT DEFAULT 1 NOT NULL,
              gtin VARCHAR(14) DEFAULT NULL,
              sold TINYINT NOT NULL,
              lot_tracked TINYINT NOT NULL,
              weight_kg NUMERIC(10, 3) DEFAULT NULL,
              sales_price NUMERIC(14, 2) DEFAULT NULL,
              average_cost NUMERIC(16, 6) DEFAULT NULL,
              standard_cost NUMERIC(16, 6) DEFAULT NULL,
              service NUMERIC(4, 3) NOT NULL,
              code VARCHAR(40) NOT NULL,
              name VARCHAR(160) NOT NULL,
              category VARCHAR(60) NOT NULL,
              unit VARCHAR(3) NOT NULL,
              UNIQUE INDEX UNIQ_1F1B251ECA784C9B (gtin),
              UNIQUE INDEX UNIQ_1F1B251E77153098 (code),
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE lot (
              number VARCHAR(40) NOT NULL,
              expires_on DATE DEFAULT NULL,
              item_id INT NOT NULL,
              INDEX IDX_B81291B126F525E (item_id),
              PRIMARY KEY (item_id, number)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE number_series (
              name VARCHAR(10) NOT NULL,
              next INT NOT NULL,
              PRIMARY KEY (name)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE offer (
              id INT AUTO_INCREMENT NOT NULL,
              version INT DEFAULT 1 NOT NULL,
              minimum NUMERIC(14, 3) NOT NULL,
              multiple NUMERIC(14, 3) NOT NULL,
              split TINYINT NOT NULL,
              lead_days INT NOT NULL,
              rank INT NOT NULL,
              valid_until DATE DEFAULT NULL,
              supplier_code VARCHAR(40) NOT NULL,
              pack_name VARCHAR(30) NOT NULL,
              pack_content NUMERIC(14, 3) NOT NULL,
              supplier_id INT NOT NULL,
              item_id INT NOT NULL,
              INDEX IDX_29D6873E2ADD6D8C (supplier_id),
              INDEX IDX_29D6873E126F525E (item_id),
              UNIQUE INDEX offer_once (supplier_id, item_id, pack_name),
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE order_line (
              id INT AUTO_INCREMENT NOT NULL,
              received NUMERIC(14, 3) NOT NULL,
              closed_short NUMERIC(14, 3) NOT NULL,
              position INT NOT NULL,
              description VARCHAR(200) NOT NULL,
              supplier_code VARCHAR(40) NOT NULL,
              pack_name VARCHAR(30) NOT NULL,
              pack_content NUMERIC(14, 3) NOT NULL,
              packs NUMERIC(14, 3) NOT NULL,
              price NUMERIC(14, 4) NOT NULL,
              order_id INT NOT NULL,
              item_id INT DEFAULT NULL,
              offer_id INT DEFAULT NULL,
              site_id INT NOT NULL,
              INDEX IDX_9CE58EE18D9F6D38 (order_id),
              INDEX IDX_9CE58EE1126F525E (item_id),
              INDEX IDX_9CE58EE153C674EE (offer_id),
              INDEX IDX_9CE58EE1F6BD1646 (site_id),
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE order_revision (
              number INT NOT NULL,
              at DATETIME NOT NULL,
              snapshot JSON NOT NULL,
              order_id INT NOT NULL,
              by_id INT NOT NULL,
              INDEX IDX_8C9BF77D8D9F6D38 (order_id),
              INDEX IDX_8C9BF77DAAE72004 (by_id),
              PRIMARY KEY (order_id, number)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE person (
              id INT AUTO_INCREMENT NOT NULL,
              email VARCHAR(180) NOT NULL,
              name VARCHAR(80) NOT NULL,
              role VARCHAR(20) NOT NULL,
              spending_limit NUMERIC(14, 2) DEFAULT NULL,
              password VARCHAR(255) NOT NULL,
              UNIQUE INDEX UNIQ_34DCD176E7927C74 (email),
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE planning_run (
              id INT AUTO_INCREMENT NOT NULL,
              at DATETIME NOT NULL,
              cover_days INT DEFAULT NULL,
              item_sites INT NOT NULL,
              milliseconds INT NOT NULL,
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE price_break (
              id INT AUTO_INCREMENT NOT NULL,
              from_packs NUMERIC(14, 3) NOT NULL,
              price NUMERIC(14, 4) NOT NULL,
              offer_id INT NOT NULL,
              INDEX IDX_27B558BA53C674EE (offer_id),
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE proposal (
              id INT AUTO_INCREMENT NOT NULL,
              reason VARCHAR(30) NOT NULL,
              proposed NUMERIC(14, 3) NOT NULL,
              packs NUMERIC(14, 3) NOT NULL,
              chosen TINYINT NOT NULL,
              cover_days DOUBLE PRECISION DEFAULT NULL,
              forecast_per_week DOUBLE PRECISION NOT NULL,
              explanation JSON NOT NULL,
              forecast JSON NOT NULL,
              facts JSON NOT NULL,
              run_id INT NOT NULL,
              item_id INT NOT NULL,
              site_id INT NOT NULL,
              offer_id INT DEFAULT NULL,
              draft_id INT DEFAULT NULL,
              INDEX IDX_BFE5947284E3FEC4 (run_id),
              INDEX IDX_BFE59472126F525E (item_id),
              INDEX IDX_BFE59472F6BD1646 (site_id),
              INDEX IDX_BFE5947253C674EE (offer_id),
              INDEX IDX_BFE59472E2F3C5D1 (draft_id),
              UNIQUE INDEX proposal_once (item_id, site_id),
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE purchase_order (
              id INT AUTO_INCREMENT NOT NULL,
              version INT DEFAULT 1 NOT NULL,
              state VARCHAR(20) NOT NULL,
              currency VARCHAR(3) NOT NULL,
              foreign_for_one NUMERIC(18, 8) NOT NULL,
              home_currency VARCHAR(3) NOT NULL,
              tax_percent NUMERIC(5, 2) NOT NULL,
              note VARCHAR(500) NOT NULL,
              promised_on DATE DEFAULT NULL,
              approved_at DATETIME DEFAULT NULL,
              sent_at DATETIME DEFAULT NULL,
              acknowledged_at DATETIME DEFAULT NULL,
              revision INT NOT NULL,
              number VARCHAR(20) NOT NULL,
              wanted_on DATE NOT NULL,
              created_at DATETIME NOT NULL,
              approved_by_id INT DEFAULT NULL,
              supplier_id INT NOT NULL,
              buyer_id INT NOT NULL,
              UNIQUE INDEX UNIQ_21E210B296901F54 (number),
              INDEX IDX_21E210B22D234F6A (approved_by_id),
              INDEX IDX_21E210B22ADD6D8C (supplier_id),
              INDEX IDX_21E210B26C755722 (buyer_id),
              INDEX order_by_state (state, wanted_on),
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE receipt (
              id INT AUTO_INCREMENT NOT NULL,
              number VARCHAR(20) NOT NULL,
              day DATE NOT NULL,
              at DATETIME NOT NULL,
              idempotency_key VARCHAR(60) NOT NULL,
              delivery_id INT NOT NULL,
              by_id INT DEFAULT NULL,
              UNIQUE INDEX UNIQ_5399B64596901F54 (number),
              UNIQUE INDEX UNIQ_5399B6457FD1C147 (idempotency_key),
              INDEX IDX_5399B64512136921 (delivery_id),
              INDEX IDX_5399B645AAE72004 (by_id),
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE receipt_line (
              id INT AUTO_INCREMENT NOT NULL,
              packs NUMERIC(14, 3) NOT NULL,
              unit_cost NUMERIC(16, 6) NOT NULL,
              lot VARCHAR(40) NOT NULL,
              receipt_id INT NOT NULL,
              line_id INT NOT NULL,
              INDEX IDX_476F8F7A2B5CA896 (receipt_id),
              INDEX IDX_476F8F7A4D7B7542 (line_id),
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE sales_day (
              day DATE NOT NULL,
              quantity NUMERIC(14, 3) NOT NULL,
              out_of_stock TINYINT NOT NULL,
              item_id INT NOT NULL,
              site_id INT NOT NULL,
              INDEX IDX_10B4868A126F525E (item_id),
              INDEX IDX_10B4868AF6BD1646 (site_id),
              INDEX sales_of_day (day),
              PRIMARY KEY (item_id, site_id, day)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE sent_document (
              id INT AUTO_INCREMENT NOT NULL,
              sha256 VARCHAR(64) NOT NULL,
              content MEDIUMBLOB NOT NULL,
              revision INT NOT NULL,
              filename VARCHAR(120) NOT NULL,
              media_type VARCHAR(80) NOT NULL,
              sent_to VARCHAR(180) NOT NULL,
              sent_at DATETIME NOT NULL,
              order_id INT NOT NULL,
              INDEX IDX_551B0EB48D9F6D38 (order_id),
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE site (
              id INT AUTO_INCREMENT NOT NULL,
              code VARCHAR(20) NOT NULL,
              name VARCHAR(80) NOT NULL,
              address VARCHAR(200) NOT NULL,
              receiving_hours VARCHAR(80) NOT NULL,
              UNIQUE INDEX UNIQ_694309E477153098 (code),
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE stock_balance (
              state VARCHAR(20) NOT NULL,
              lot VARCHAR(40) NOT NULL,
              quantity NUMERIC(14, 3) NOT NULL,
              item_id INT NOT NULL,
              site_id INT NOT NULL,
              INDEX IDX_B5520F5D126F525E (item_id),
              INDEX IDX_B5520F5DF6BD1646 (site_id),
              PRIMARY KEY (item_id, site_id, state, lot)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE stock_movement (
              id BIGINT AUTO_INCREMENT NOT NULL,
              state VARCHAR(20) NOT NULL,
              lot VARCHAR(40) NOT NULL,
              kind VARCHAR(20) NOT NULL,
              quantity NUMERIC(14, 3) NOT NULL,
              unit_cost NUMERIC(16, 6) DEFAULT NULL,
              day DATE NOT NULL,
              at DATETIME NOT NULL,
              reference VARCHAR(60) NOT NULL,
              idempotency_key VARCHAR(80) DEFAULT NULL,
              item_id INT NOT NULL,
              site_id INT NOT NULL,
              person_id INT DEFAULT NULL,
              UNIQUE INDEX UNIQ_BB1BC1B57FD1C147 (idempotency_key),
              INDEX IDX_BB1BC1B5126F525E (item_id),
              INDEX IDX_BB1BC1B5F6BD1646 (site_id),
              INDEX IDX_BB1BC1B5217BBB47 (person_id),
              INDEX movement_of_item (item_id, site_id, day),
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE stocking (
              item_id INT NOT NULL,
              site_id INT NOT NULL,
              bin_id INT DEFAULT NULL,
              INDEX IDX_FB633F4F126F525E (item_id),
              INDEX IDX_FB633F4FF6BD1646 (site_id),
              INDEX IDX_FB633F4F222586DC (bin_id),
              PRIMARY KEY (item_id, site_id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE supplier (
              id INT AUTO_INCREMENT NOT NULL,
              version INT DEFAULT 1 NOT NULL,
              net_days INT DEFAULT NULL,
              discount_percent NUMERIC(5, 2) NOT NULL,
              discount_days INT NOT NULL,
              delivery_terms VARCHAR(80) NOT NULL,
              order_weekdays VARCHAR(20) NOT NULL,
              cut_off VARCHAR(5) NOT NULL,
              minimum_value NUMERIC(14, 2) DEFAULT NULL,
              free_freight_from NUMERIC(14, 2) DEFAULT NULL,
              tax_percent NUMERIC(5, 2) NOT NULL,
              caution VARCHAR(300) NOT NULL,
              standing_note VARCHAR(500) NOT NULL,
              code VARCHAR(20) NOT NULL,
              name VARCHAR(120) NOT NULL,
              currency VARCHAR(3) NOT NULL,
              UNIQUE INDEX UNIQ_9B2A6C7E77153098 (code),
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE supplier_address (
              id INT AUTO_INCREMENT NOT NULL,
              street VARCHAR(120) NOT NULL,
              postcode VARCHAR(20) NOT NULL,
              city VARCHAR(80) NOT NULL,
              country VARCHAR(2) NOT NULL,
              supplier_id INT NOT NULL,
              INDEX IDX_8C2B1B9E2ADD6D8C (supplier_id),
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE supplier_contact (
              id INT AUTO_INCREMENT NOT NULL,
              name VARCHAR(80) NOT NULL,
              email VARCHAR(180) NOT NULL,
              phone VARCHAR(40) NOT NULL,
              supplier_id INT NOT NULL,
              INDEX IDX_CD0792272ADD6D8C (supplier_id),
              PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              audit_entry
            ADD
              CONSTRAINT FK_2C6AF987217BBB47 FOREIGN KEY (person_id) REFERENCES person (id)
        SQL);
        $this->addSql('ALTER TABLE bin ADD CONSTRAINT FK_AA275AEDF6BD1646 FOREIGN KEY (site_id) REFERENCES site (id)');
        $this->addSql(<<<'SQL'
            ALTER TABLE
              customer_promise
            ADD
              CONSTRAINT FK_87D1872E126F525E FOREIGN KEY (item_id) REFERENCES item (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              customer_promise
            ADD
              CONSTRAINT FK_87D1872EF6BD1646 FOREIGN KEY (site_id) REFERENCES site (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              delivery
            ADD
              CONSTRAINT FK_3781EC102ADD6D8C FOREIGN KEY (supplier_id) REFERENCES supplier (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              delivery
            ADD
              CONSTRAINT FK_3781EC10F6BD1646 FOREIGN KEY (site_id) REFERENCES site (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              delivery_line
            ADD
              CONSTRAINT FK_887C6C12136921 FOREIGN KEY (delivery_id) REFERENCES delivery (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              delivery_line
            ADD
              CONSTRAINT FK_887C6C4D7B7542 FOREIGN KEY (line_id) REFERENCES order_line (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              import_run
            ADD
              CONSTRAINT FK_C41B0440AAE72004 FOREIGN KEY (by_id) REFERENCES person (id)
        SQL);
        $this->addSql('ALTER TABLE lot ADD CONSTRAINT FK_B81291B126F525E FOREIGN KEY (item_id) REFERENCES item (id)');
        $this->addSql(<<<'SQL'
            ALTER TABLE
              offer
            ADD
              CONSTRAINT FK_29D6873E2ADD6D8C FOREIGN KEY (supplier_id) REFERENCES supplier (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              offer
            ADD
              CONSTRAINT FK_29D6873E126F525E FOREIGN KEY (item_id) REFERENCES item (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              order_line
            ADD
              CONSTRAINT FK_9CE58EE18D9F6D38 FOREIGN KEY (order_id) REFERENCES purchase_order (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              order_line
            ADD
              CONSTRAINT FK_9CE58EE1126F525E FOREIGN KEY (item_id) REFERENCES item (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              order_line
            ADD
              CONSTRAINT FK_9CE58EE153C674EE FOREIGN KEY (offer_id) REFERENCES offer (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              order_line
            ADD
              CONSTRAINT FK_9CE58EE1F6BD1646 FOREIGN KEY (site_id) REFERENCES site (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              order_revision
            ADD
              CONSTRAINT FK_8C9BF77D8D9F6D38 FOREIGN KEY (order_id) REFERENCES purchase_order (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              order_revision
            ADD
              CONSTRAINT FK_8C9BF77DAAE72004 FOREIGN KEY (by_id) REFERENCES person (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              price_break
            ADD
              CONSTRAINT FK_27B558BA53C674EE FOREIGN KEY (offer_id) REFERENCES offer (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              proposal
            ADD
              CONSTRAINT FK_BFE5947284E3FEC4 FOREIGN KEY (run_id) REFERENCES planning_run (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              proposal
            ADD
              CONSTRAINT FK_BFE59472126F525E FOREIGN KEY (item_id) REFERENCES item (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              proposal
            ADD
              CONSTRAINT FK_BFE59472F6BD1646 FOREIGN KEY (site_id) REFERENCES site (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              proposal
            ADD
              CONSTRAINT FK_BFE5947253C674EE FOREIGN KEY (offer_id) REFERENCES offer (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              proposal
            ADD
              CONSTRAINT FK_BFE59472E2F3C5D1 FOREIGN KEY (draft_id) REFERENCES purchase_order (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              purchase_order
            ADD
              CONSTRAINT FK_21E210B22D234F6A FOREIGN KEY (approved_by_id) REFERENCES person (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              purchase_order
            ADD
              CONSTRAINT FK_21E210B22ADD6D8C FOREIGN KEY (supplier_id) REFERENCES supplier (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              purchase_order
            ADD
              CONSTRAINT FK_21E210B26C755722 FOREIGN KEY (buyer_id) REFERENCES person (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              receipt
            ADD
              CONSTRAINT FK_5399B64512136921 FOREIGN KEY (delivery_id) REFERENCES delivery (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              receipt
            ADD
              CONSTRAINT FK_5399B645AAE72004 FOREIGN KEY (by_id) REFERENCES person (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              receipt_line
            ADD
              CONSTRAINT FK_476F8F7A2B5CA896 FOREIGN KEY (receipt_id) REFERENCES receipt (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              receipt_line
            ADD
              CONSTRAINT FK_476F8F7A4D7B7542 FOREIGN KEY (line_id) REFERENCES order_line (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              sales_day
            ADD
              CONSTRAINT FK_10B4868A126F525E FOREIGN KEY (item_id) REFERENCES item (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              sales_day
            ADD
              CONSTRAINT FK_10B4868AF6BD1646 FOREIGN KEY (site_id) REFERENCES site (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              sent_document
            ADD
              CONSTRAINT FK_551B0EB48D9F6D38 FOREIGN KEY (order_id) REFERENCES purchase_order (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              stock_balance
            ADD
              CONSTRAINT FK_B5520F5D126F525E FOREIGN KEY (item_id) REFERENCES item (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              stock_balance
            ADD
              CONSTRAINT FK_B5520F5DF6BD1646 FOREIGN KEY (site_id) REFERENCES site (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              stock_movement
            ADD
              CONSTRAINT FK_BB1BC1B5126F525E FOREIGN KEY (item_id) REFERENCES item (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              stock_movement
            ADD
              CONSTRAINT FK_BB1BC1B5F6BD1646 FOREIGN KEY (site_id) REFERENCES site (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              stock_movement
            ADD
              CONSTRAINT FK_BB1BC1B5217BBB47 FOREIGN KEY (person_id) REFERENCES person (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              stocking
            ADD
              CONSTRAINT FK_FB633F4F126F525E FOREIGN KEY (item_id) REFERENCES item (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              stocking
            ADD
              CONSTRAINT FK_FB633F4FF6BD1646 FOREIGN KEY (site_id) REFERENCES site (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              stocking
            ADD
              CONSTRAINT FK_FB633F4F222586DC FOREIGN KEY (bin_id) REFERENCES bin (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              supplier_address
            ADD
              CONSTRAINT FK_8C2B1B9E2ADD6D8C FOREIGN KEY (supplier_id) REFERENCES supplier (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE
              supplier_contact
            ADD
              CONSTRAINT FK_CD0792272ADD6D8C FOREIGN KEY (supplier_id) REFERENCES supplier (id)
        SQL);
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE audit_entry DROP FOREIGN KEY FK_2C6AF987217BBB47');
        $this->addSql('ALTER TABLE bin DROP FOREIGN KEY FK_AA275AEDF6BD1646');
        $this->addSql('ALTER TABLE customer_promise DROP FOREIGN KEY FK_87D1872E126F525E');
        $this->addSql('ALTER TABLE customer_promise DROP FOREIGN KEY FK_87D1872EF6BD1646');
        $this->addSql('ALTER TABLE delivery DROP FOREIGN KEY FK_3781EC102ADD6D8C');
        $this->addSql('ALTER TABLE delivery DROP FOREIGN KEY FK_3781EC10F6BD1646');
        $this->addSql('ALTER TABLE delivery_line DROP FOREIGN KEY FK_887C6C12136921');
        $this->addSql('ALTER TABLE delivery_line DROP FOREIGN KEY FK_887C6C4D7B7542');
        $this->addSql('ALTER TABLE import_run DROP FOREIGN KEY FK_C41B0440AAE72004');
        $this->addSql('ALTER TABLE lot DROP FOREIGN KEY FK_B81291B126F525E');
        $this->addSql('ALTER TABLE offer DROP FOREIGN KEY FK_29D6873E2ADD6D8C');
        $this->addSql('ALTER TABLE offer DROP FOREIGN KEY FK_29D6873E126F525E');
        $this->addSql('ALTER TABLE order_line DROP FOREIGN KEY FK_9CE58EE18D9F6D38');
        $this->addSql('ALTER TABLE order_line DROP FOREIGN KEY FK_9CE58EE1126F525E');
        $this->addSql('ALTER TABLE order_line DROP FOREIGN KEY FK_9CE58EE153C674EE');
        $this->addSql('ALTER TABLE order_line DROP FOREIGN KEY FK_9CE58EE1F6BD1646');
        $this->addSql('ALTER TABLE order_revision DROP FOREIGN KEY FK_8C9BF77D8D9F6D38');
        $this->addSql('ALTER TABLE order_revision DROP FOREIGN KEY FK_8C9BF77DAAE72004');
        $this->addSql('ALTER TABLE price_break DROP FOREIGN KEY FK_27B558BA53C674EE');
        $this->addSql('ALTER TABLE proposal DROP FOREIGN KEY FK_BFE5947284E3FEC4');
        $this->addSql('ALTER TABLE proposal DROP FOREIGN KEY FK_BFE59472126F525E');
        $this->addSql('ALTER TABLE proposal DROP FOREIGN KEY FK_BFE59472F6BD1646');
        $this->addSql('ALTER TABLE proposal DROP FOREIGN KEY FK_BFE5947253C674EE');
        $this->addSql('ALTER TABLE proposal DROP FOREIGN KEY FK_BFE59472E2F3C5D1');
        $this->addSql('ALTER TABLE purchase_order DROP FOREIGN KEY FK_21E210B22D234F6A');
        $this->addSql('ALTER TABLE purchase_order DROP FOREIGN KEY FK_21E210B22ADD6D8C');
        $this->addSql('ALTER TABLE purchase_order DROP FOREIGN KEY FK_21E210B26C755722');
        $this->addSql('ALTER TABLE receipt DROP FOREIGN KEY FK_5399B64512136921');
        $this->addSql('ALTER TABLE receipt DROP FOREIGN KEY FK_5399B645AAE72004');
        $this->addSql('ALTER TABLE receipt_line DROP FOREIGN KEY FK_476F8F7A2B5CA896');
        $this->addSql('ALTER TABLE receipt_line DROP FOREIGN KEY FK_476F8F7A4D7B7542');
        $this->addSql('ALTER TABLE sales_day DROP FOREIGN KEY FK_10B4868A126F525E');
        $this->addSql('ALTER TABLE sales_day DROP FOREIGN KEY FK_10B4868AF6BD1646');
        $this->addSql('ALTER TABLE sent_document DROP FOREIGN KEY FK_551B0EB48D9F6D38');
        $this->addSql('ALTER TABLE stock_balance DROP FOREIGN KEY FK_B5520F5D126F525E');
        $this->addSql('ALTER TABLE stock_balance DROP FOREIGN KEY FK_B5520F5DF6BD1646');
        $this->addSql('ALTER TABLE stock_movement DROP FOREIGN KEY FK_BB1BC1B5126F525E');
        $this->addSql('ALTER TABLE stock_movement DROP FOREIGN KEY FK_BB1BC1B5F6BD1646');
        $this->addSql('ALTER TABLE stock_movement DROP FOREIGN KEY FK_BB1BC1B5217BBB47');
        $this->addSql('ALTER TABLE stocking DROP FOREIGN KEY FK_FB633F4F126F525E');
        $this->addSql('ALTER TABLE stocking DROP FOREIGN KEY FK_FB633F4FF6BD1646');
        $this->addSql('ALTER TABLE stocking DROP FOREIGN KEY FK_FB633F4F222586DC');
        $this->addSql('ALTER TABLE supplier_address DROP FOREIGN KEY FK_8C2B1B9E2ADD6D8C');
        $this->addSql('ALTER TABLE supplier_contact DROP FOREIGN KEY FK_CD0792272ADD6D8C');
        $this->addSql('DROP TABLE audit_entry');
        $this->addSql('DROP TABLE bin');
        $this->addSql('DROP TABLE business');
        $this->addSql('DROP TABLE customer_promise');
        $this->addSql('DROP TABLE delivery');
        $this->addSql('DROP TABLE delivery_line');
        $this->addSql('DROP TABLE exchange_rate');
        $this->addSql('DROP TABLE import_run');
        $this->addSql('DROP TABLE item');
        $this->addSql('DROP TABLE lot');
        $this->addSql('DROP TABLE number_series');
        $this->addSql('DROP TABLE offer');
        $this->addSql('DROP TABLE order_line');
        $this->addSql('DROP TABLE order_revision');
        $this->addSql('DROP TABLE person');
        $this->addSql('DROP TABLE planning_run');
        $this->addSql('DROP TABLE price_break');
        $this->addSql('DROP TABLE proposal');
        $this->addSql('DROP TABLE purchase_order');
        $this->addSql('DROP TABLE receipt');
        $this->addSql('DROP TABLE receipt_line');
        $this->addSql('DROP TABLE sales_day');
        $this->addSql('DROP TABLE sent_document');
        $this->addSql('DROP TABLE site');
        $this->addSql('DROP TABLE stock_balance');
        $this->addSql('DROP TABLE stock_movement');
        $this->addSql('DROP TABLE stocking');
        $this->addSql('DROP TABLE supplier');
        $this->addSql('DROP TABLE supplier_address');
        $this->addSql('DROP TABLE supplier_contact');
    }
}
