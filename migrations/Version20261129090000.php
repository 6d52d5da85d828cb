<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261129090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'When goods in inspection are free; pictures of counted lines';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE inspection ADD since DATE DEFAULT NULL');
        $this->addSql("CREATE VIEW in_inspection AS
            SELECT b.item_id, b.site_id, b.lot, b.quantity units,
                (SELECT MAX(m.day) FROM stock_movement m WHERE m.item_id = b.item_id AND m.site_id = b.site_id
                    AND m.state = b.state AND m.lot = b.lot AND m.quantity > 0) since
            FROM stock_balance b WHERE b.state = 'in-inspection' AND b.quantity > 0");
        // What is in inspection comes on a day of its own; what stands at the dock is put away today.
        $this->addSql("CREATE OR REPLACE VIEW on_hand_soon AS
            SELECT item_id, site_id, SUM(quantity) units FROM stock_balance
            WHERE state IN ('available', 'at-dock') GROUP BY item_id, site_id");
        $this->addSql('ALTER TABLE delivery_attachment ADD line_id INT DEFAULT NULL,
            ADD INDEX IDX_671A4E9F4D7B7542 (line_id)');
        $this->addSql('ALTER TABLE delivery_attachment
            ADD CONSTRAINT FK_671A4E9F4D7B7542 FOREIGN KEY (line_id) REFERENCES delivery_line (id)
                ON DELETE SET NULL');
        $this->worth();
        $this->addSql("ALTER TABLE order_line ADD invoiced NUMERIC(14, 3) DEFAULT '0.000' NOT NULL,
            ADD INDEX order_line_billed (received, invoiced)");
        $this->addSql('UPDATE order_line l JOIN (SELECT order_line_id, SUM(owed_packs) packs FROM invoice_line
            WHERE order_line_id IS NOT NULL GROUP BY order_line_id) v ON v.order_line_id = l.id
            SET l.invoiced = v.packs');
        $this->addSql('ALTER TABLE invoice_line ADD INDEX disputed_quantity (on_quantity),
            ADD INDEX disputed_price (on_price)');
        $this->credits();
        $this->papers();
        $this->addSql('ALTER TABLE business ADD cash NUMERIC(14, 2) DEFAULT NULL, ADD cash_on DATE DEFAULT NULL,
            ADD ledger_accounts JSON DEFAULT \'{}\' NOT NULL');
        $this->books();
        $this->payments();
    }

    private function papers(): void
    {
        $this->addSql('CREATE TABLE invoice_paper (id INT AUTO_INCREMENT NOT NULL, name VARCHAR(120) NOT NULL,
            mime VARCHAR(20) NOT NULL, content MEDIUMBLOB NOT NULL, at DATETIME NOT NULL, invoice_id INT DEFAULT NULL,
            credit_id INT DEFAULT NULL, supplier_id INT NOT NULL, by_id INT NOT NULL, within_id INT DEFAULT NULL,
            PRIMARY KEY (id))');
        foreach (
            [
                ['73C030A32989F1FD', 'invoice_id', 'invoice (id) ON DELETE CASCADE'],
                ['73C030A3CE062FF9', 'credit_id', 'credit_note (id) ON DELETE CASCADE'],
                ['73C030A32ADD6D8C', 'supplier_id', 'supplier (id)'],
                ['73C030A3AAE72004', 'by_id', 'person (id)'],
                ['73C030A39734F103', 'within_id', 'invoice_paper (id) ON DELETE CASCADE'],
            ] as [$name, $column, $other]
        ) {
            $this->addSql("ALTER TABLE invoice_paper ADD INDEX IDX_$name ($column),
                ADD CONSTRAINT FK_$name FOREIGN KEY ($column) REFERENCES $other");
        }
    }

    private function credits(): void
    {
        $this->addSql("CREATE TABLE credit_note (id INT AUTO_INCREMENT NOT NULL, version INT DEFAULT 1 NOT NULL,
            used_on DATE DEFAULT NULL, bank_file VARCHAR(20) DEFAULT '' NOT NULL, number VARCHAR(40) NOT NULL,
            day DATE NOT NULL, currency VARCHAR(3) NOT NULL, foreign_for_one NUMERIC(18, 8) NOT NULL,
            entered_at DATETIME NOT NULL, idempotency_key VARCHAR(60) NOT NULL, supplier_id INT NOT NULL,
            entered_by_id INT DEFAULT NULL, UNIQUE INDEX UNIQ_C87F45297FD1C147 (idempotency_key),
            INDEX IDX_C87F45292ADD6D8C (supplier_id), INDEX IDX_C87F4529C443EDD (entered_by_id),
            UNIQUE INDEX credit_once (supplier_id, number), PRIMARY KEY (id))");
        $this->addSql('CREATE TABLE credit_note_line (id INT AUTO_INCREMENT NOT NULL, position INT NOT NULL,
            words VARCHAR(200) NOT NULL, amount NUMERIC(14, 2) NOT NULL, tax_percent NUMERIC(5, 2) NOT NULL,
            note_id INT NOT NULL, disputed_id INT DEFAULT NULL, back_id INT DEFAULT NULL,
            INDEX IDX_B0A453BC26ED0855 (note_id), INDEX IDX_B0A453BC9173217C (disputed_id),
            INDEX IDX_B0A453BCE9583FF0 (back_id),
            PRIMARY KEY (id))');
        foreach (
            [
                ['credit_note', 'supplier_id', 'supplier'],
                ['credit_note', 'entered_by_id', 'person'],
                ['credit_note_line', 'note_id', 'credit_note'],
                ['credit_note_line', 'disputed_id', 'invoice_line'],
                ['credit_note_line', 'back_id', 'supplier_return'],
            ] as [$table, $column, $other]
        ) {
            $this->addSql("ALTER TABLE $table
                ADD CONSTRAINT FK_{$table}_$column FOREIGN KEY ($column) REFERENCES $other (id)");
        }
    }

    private function payments(): void
    {
        $this->addSql('CREATE TABLE invoice_payment (id INT AUTO_INCREMENT NOT NULL, day DATE NOT NULL,
            amount NUMERIC(14, 2) NOT NULL, reference VARCHAR(60) NOT NULL, foreign_for_one NUMERIC(18, 8) NOT NULL,
            invoice_id INT NOT NULL, by_id INT DEFAULT NULL, INDEX IDX_9FF1B2DE2989F1FD (invoice_id),
            INDEX IDX_9FF1B2DEAAE72004 (by_id), PRIMARY KEY (id))');
        $this->addSql('ALTER TABLE invoice_payment
            ADD CONSTRAINT FK_PAYMENT_INVOICE FOREIGN KEY (invoice_id) REFERENCES invoice (id) ON DELETE CASCADE,
            ADD CONSTRAINT FK_PAYMENT_BY FOREIGN KEY (by_id) REFERENCES person (id)');
        $this->addSql("INSERT INTO invoice_payment (invoice_id, day, amount, reference, foreign_for_one)
            SELECT id, paid_on, paid, '', foreign_for_one FROM invoice WHERE paid_on IS NOT NULL");
    }

    private function books(): void
    {
        $this->addSql('CREATE TABLE book_period (id INT AUTO_INCREMENT NOT NULL, month VARCHAR(7) NOT NULL,
            at DATETIME NOT NULL, by_id INT NOT NULL, UNIQUE INDEX UNIQ_EC6F15438EB61006 (month),
            INDEX IDX_EC6F1543AAE72004 (by_id), PRIMARY KEY (id))');
        $this->addSql('CREATE TABLE booked_entry (id INT AUTO_INCREMENT NOT NULL, booked_key VARCHAR(60) NOT NULL,
            document VARCHAR(40) NOT NULL, words VARCHAR(200) NOT NULL, day DATE NOT NULL, period_id INT NOT NULL,
            UNIQUE INDEX UNIQ_756300E4E70C7A6D (booked_key), INDEX IDX_756300E4EC8B7ADE (period_id),
            PRIMARY KEY (id))');
        $this->addSql('CREATE TABLE booked_line (id INT AUTO_INCREMENT NOT NULL, account VARCHAR(20) NOT NULL,
            amount NUMERIC(14, 2) NOT NULL, entry_id INT NOT NULL, INDEX IDX_4D702E8EBA364942 (entry_id),
            PRIMARY KEY (id))');
        foreach (
            [
                ['book_period', 'by_id', 'person'],
                ['booked_entry', 'period_id', 'book_period'],
                ['booked_line', 'entry_id', 'booked_entry'],
            ] as [$table, $column, $other]
        ) {
            $this->addSql("ALTER TABLE $table
                ADD CONSTRAINT FK_{$table}_$column FOREIGN KEY ($column) REFERENCES $other (id)");
        }
    }

    private function worth(): void
    {
        $this->addSql('CREATE TABLE item_cost (item_id INT NOT NULL, day DATE NOT NULL, cost NUMERIC(16, 6) NOT NULL,
            PRIMARY KEY (item_id, day))');
        $this->addSql('ALTER TABLE item_cost
            ADD CONSTRAINT FK_ITEM_COST FOREIGN KEY (item_id) REFERENCES item (id) ON DELETE CASCADE');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
