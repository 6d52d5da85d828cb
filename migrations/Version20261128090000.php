<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261128090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Goods on their way between sites; how strictly samples are judged';
    }

    public function up(Schema $schema): void
    {
        $this->transfers();
        $this->addSql("ALTER TABLE lot ADD raw_origin VARCHAR(2) DEFAULT '' NOT NULL,
            ADD theirs VARCHAR(40) DEFAULT '' NOT NULL");
        $this->addSql("ALTER TABLE business ADD stock_limits JSON DEFAULT '{}' NOT NULL");
        $this->addSql('ALTER TABLE stocking ADD counted_on DATE DEFAULT NULL');
        $this->addSql('ALTER TABLE item ADD measured TINYINT(1) DEFAULT 0 NOT NULL,
            ADD inspection_level VARCHAR(3) DEFAULT \'II\' NOT NULL, ADD look_at VARCHAR(500) DEFAULT \'\' NOT NULL');
        $this->addSql('ALTER TABLE supplier ADD inspected TINYINT(1) DEFAULT 0 NOT NULL');
        $this->arrivals();
        $this->places();
        $this->charges();
        $this->accounts();
        $this->addSql("ALTER TABLE inspection ADD severity VARCHAR(10) DEFAULT 'normal' NOT NULL");
    }

    private function transfers(): void
    {
        $this->addSql('CREATE TABLE transfer (id INT AUTO_INCREMENT NOT NULL, version INT DEFAULT 1 NOT NULL,
            state VARCHAR(10) NOT NULL, sent_on DATE DEFAULT NULL, arrived_on DATE DEFAULT NULL,
            number VARCHAR(20) NOT NULL, due_on DATE NOT NULL, at DATETIME NOT NULL, source_id INT NOT NULL,
            target_id INT NOT NULL, by_id INT NOT NULL, UNIQUE INDEX UNIQ_4034A3C096901F54 (number),
            INDEX IDX_4034A3C0953C1C61 (source_id), INDEX IDX_4034A3C0158E0B66 (target_id),
            INDEX IDX_4034A3C0AAE72004 (by_id), INDEX transfer_by_state (state), PRIMARY KEY (id))');
        $this->addSql("CREATE TABLE transfer_line (id INT AUTO_INCREMENT NOT NULL, sent NUMERIC(14, 3) DEFAULT NULL,
            came NUMERIC(14, 3) DEFAULT NULL, bad NUMERIC(14, 3) DEFAULT NULL, words VARCHAR(120) DEFAULT '' NOT NULL,
            wanted NUMERIC(14, 3) NOT NULL, lot VARCHAR(40) DEFAULT '' NOT NULL,
            idempotency_key VARCHAR(60) DEFAULT NULL, transfer_id INT NOT NULL, item_id INT NOT NULL,
            UNIQUE INDEX UNIQ_E9E198947FD1C147 (idempotency_key), INDEX IDX_E9E19894537048AF (transfer_id),
            INDEX IDX_E9E19894126F525E (item_id), PRIMARY KEY (id))");
        foreach (
            [
                ['transfer', 'FK_4034A3C0953C1C61', 'source_id', 'site'],
                ['transfer', 'FK_4034A3C0158E0B66', 'target_id', 'site'],
                ['transfer', 'FK_4034A3C0AAE72004', 'by_id', 'person'],
                ['transfer_line', 'FK_E9E19894537048AF', 'transfer_id', 'transfer'],
                ['transfer_line', 'FK_E9E19894126F525E', 'item_id', 'item'],
            ] as [$table, $name, $column, $other]
        ) {
            $this->addSql("ALTER TABLE $table ADD CONSTRAINT $name FOREIGN KEY ($column) REFERENCES $other (id)");
        }
        // What another site gives: nobody can count on it twice, neither here nor there.
        $this->addSql(<<<'SQL'
                CREATE VIEW open_transfer AS
                SELECT l.id, l.item_id, t.target_id site_id, t.source_id, t.number, t.state, t.due_on due,
                    COALESCE(l.sent, l.wanted) units
                FROM transfer_line l JOIN transfer t ON t.id = l.transfer_id
                WHERE t.state IN ('to-pick', 'under-way') AND COALESCE(l.sent, l.wanted) > 0
            SQL);
        $this->addSql("CREATE OR REPLACE VIEW on_hand_soon AS
            SELECT item_id, site_id, SUM(quantity) units FROM stock_balance
            WHERE state NOT IN ('held', 'on-its-way') GROUP BY item_id, site_id");
    }

    private function accounts(): void
    {
        $this->addSql("ALTER TABLE business ADD iban VARCHAR(34) DEFAULT '' NOT NULL,
            ADD bic VARCHAR(11) DEFAULT '' NOT NULL");
        $this->addSql("ALTER TABLE invoice ADD bank_file VARCHAR(20) DEFAULT '' NOT NULL");
        $this->addSql('CREATE TABLE supplier_account (id INT AUTO_INCREMENT NOT NULL, version INT DEFAULT 1 NOT NULL,
            iban VARCHAR(34) NOT NULL, state VARCHAR(10) NOT NULL, decided_at DATETIME DEFAULT NULL,
            bic VARCHAR(11) NOT NULL, holder VARCHAR(70) NOT NULL, asked_at DATETIME NOT NULL,
            decided_by_id INT DEFAULT NULL, supplier_id INT NOT NULL, asked_by_id INT NOT NULL,
            INDEX IDX_FC5322BBE26B496B (decided_by_id), INDEX IDX_FC5322BB2ADD6D8C (supplier_id),
            INDEX IDX_FC5322BB4F7A72E4 (asked_by_id),
            INDEX account_of_supplier (supplier_id, state), PRIMARY KEY (id))');
        $this->addSql('ALTER TABLE supplier_account
            ADD CONSTRAINT FK_FC5322BBE26B496B FOREIGN KEY (decided_by_id) REFERENCES person (id),
            ADD CONSTRAINT FK_FC5322BB2ADD6D8C FOREIGN KEY (supplier_id) REFERENCES supplier (id),
            ADD CONSTRAINT FK_FC5322BB4F7A72E4 FOREIGN KEY (asked_by_id) REFERENCES person (id)');
    }

    private function charges(): void
    {
        $this->addSql('CREATE TABLE landed_charge (id INT AUTO_INCREMENT NOT NULL, version INT DEFAULT 1 NOT NULL,
            taken_back VARCHAR(200) DEFAULT NULL, taken_back_at DATETIME DEFAULT NULL, number VARCHAR(20) NOT NULL,
            kind VARCHAR(10) NOT NULL, paper VARCHAR(40) NOT NULL, amount NUMERIC(14, 2) NOT NULL,
            currency VARCHAR(3) NOT NULL, home NUMERIC(14, 2) NOT NULL, basis VARCHAR(10) NOT NULL,
            at DATETIME NOT NULL, idempotency_key VARCHAR(60) NOT NULL, supplier_id INT DEFAULT NULL,
            by_id INT NOT NULL, UNIQUE INDEX UNIQ_8105EA1796901F54 (number),
            UNIQUE INDEX UNIQ_8105EA177FD1C147 (idempotency_key),
            INDEX IDX_8105EA172ADD6D8C (supplier_id), INDEX IDX_8105EA17AAE72004 (by_id), PRIMARY KEY (id))');
        $this->addSql('CREATE TABLE landed_charge_line (id INT AUTO_INCREMENT NOT NULL, share NUMERIC(14, 2) NOT NULL,
            to_stock NUMERIC(14, 2) NOT NULL, charge_id INT NOT NULL, came_id INT NOT NULL,
            INDEX IDX_C36045C255284914 (charge_id), INDEX IDX_C36045C210C0FD16 (came_id), PRIMARY KEY (id))');
        $this->addSql('ALTER TABLE landed_charge
            ADD CONSTRAINT FK_8105EA172ADD6D8C FOREIGN KEY (supplier_id) REFERENCES supplier (id),
            ADD CONSTRAINT FK_8105EA17AAE72004 FOREIGN KEY (by_id) REFERENCES person (id)');
        $this->addSql('ALTER TABLE landed_charge_line
            ADD CONSTRAINT FK_C36045C255284914 FOREIGN KEY (charge_id) REFERENCES landed_charge (id),
            ADD CONSTRAINT FK_C36045C210C0FD16 FOREIGN KEY (came_id) REFERENCES receipt_line (id)');
    }

    private function places(): void
    {
        $this->addSql('CREATE TABLE shelf_place (lot VARCHAR(40) NOT NULL, item_id INT NOT NULL, site_id INT NOT NULL,
            bin_id INT NOT NULL, INDEX IDX_F846D7A8126F525E (item_id), INDEX IDX_F846D7A8F6BD1646 (site_id),
            INDEX IDX_F846D7A8222586DC (bin_id), PRIMARY KEY (item_id, site_id, lot))');
        $this->addSql('ALTER TABLE shelf_place
            ADD CONSTRAINT FK_F846D7A8126F525E FOREIGN KEY (item_id) REFERENCES item (id),
            ADD CONSTRAINT FK_F846D7A8F6BD1646 FOREIGN KEY (site_id) REFERENCES site (id),
            ADD CONSTRAINT FK_F846D7A8222586DC FOREIGN KEY (bin_id) REFERENCES bin (id) ON DELETE CASCADE');
    }

    private function arrivals(): void
    {
        $this->addSql("ALTER TABLE delivery ADD carrier VARCHAR(60) DEFAULT '' NOT NULL,
            ADD tracking VARCHAR(60) DEFAULT '' NOT NULL, ADD packages INT DEFAULT NULL, ADD pallets INT DEFAULT NULL,
            ADD seen VARCHAR(200) DEFAULT '' NOT NULL, ADD temperature NUMERIC(5, 1) DEFAULT NULL,
            ADD scans JSON DEFAULT '[]' NOT NULL,
            ADD advised_id INT DEFAULT NULL, ADD INDEX IDX_3781EC105911BD95 (advised_id)");
        $this->addSql('ALTER TABLE delivery ADD CONSTRAINT FK_3781EC105911BD95 FOREIGN KEY (advised_id)
            REFERENCES despatch (id)');
        $this->addSql('CREATE TABLE delivery_attachment (id INT AUTO_INCREMENT NOT NULL, name VARCHAR(120) NOT NULL,
            mime VARCHAR(20) NOT NULL, content MEDIUMBLOB NOT NULL, at DATETIME NOT NULL, delivery_id INT NOT NULL,
            by_id INT NOT NULL, INDEX IDX_671A4E9F12136921 (delivery_id), INDEX IDX_671A4E9FAAE72004 (by_id),
            PRIMARY KEY (id))');
        $this->addSql('ALTER TABLE delivery_attachment
            ADD CONSTRAINT FK_671A4E9F12136921 FOREIGN KEY (delivery_id) REFERENCES delivery (id) ON DELETE CASCADE,
            ADD CONSTRAINT FK_671A4E9FAAE72004 FOREIGN KEY (by_id) REFERENCES person (id)');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}
