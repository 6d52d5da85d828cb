<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261125240000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Invoices, and what of them is owed';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            'CREATE TABLE invoice (id INT AUTO_INCREMENT NOT NULL, version INT DEFAULT 1 NOT NULL,
                state VARCHAR(12) NOT NULL, decisions INT DEFAULT 0 NOT NULL, released_at DATETIME DEFAULT NULL,
                paid_on DATE DEFAULT NULL,
                paid NUMERIC(14, 2) DEFAULT NULL, foreign_for_one NUMERIC(18, 8) NOT NULL, currency VARCHAR(3) NOT NULL,
                home_currency VARCHAR(3) NOT NULL, number VARCHAR(40) NOT NULL, day DATE NOT NULL,
                entered_at DATETIME NOT NULL, idempotency_key VARCHAR(60) NOT NULL, released_by_id INT DEFAULT NULL,
                supplier_id INT NOT NULL, entered_by_id INT DEFAULT NULL,
                UNIQUE INDEX UNIQ_906517447FD1C147 (idempotency_key), UNIQUE INDEX invoice_once (supplier_id, number),
                INDEX IDX_90651744445947DD (released_by_id), INDEX IDX_906517442ADD6D8C (supplier_id),
                INDEX IDX_90651744C443EDD (entered_by_id), INDEX invoice_state (state, day), PRIMARY KEY (id),
                CONSTRAINT fk_invoice_released FOREIGN KEY (released_by_id) REFERENCES person (id),
                CONSTRAINT fk_invoice_supplier FOREIGN KEY (supplier_id) REFERENCES supplier (id),
                CONSTRAINT fk_invoice_entered FOREIGN KEY (entered_by_id) REFERENCES person (id))
             DEFAULT CHARACTER SET utf8mb4',
        );
        $this->addSql(
            'CREATE TABLE invoice_line (id INT AUTO_INCREMENT NOT NULL, received NUMERIC(14, 3) NOT NULL,
                owed_packs NUMERIC(14, 3) NOT NULL, owed_price NUMERIC(16, 6) NOT NULL,
                on_quantity VARCHAR(12) DEFAULT NULL, on_price VARCHAR(12) DEFAULT NULL, position INT NOT NULL,
                words VARCHAR(200) NOT NULL, packs NUMERIC(14, 3) NOT NULL, price NUMERIC(16, 6) NOT NULL,
                tax_percent NUMERIC(5, 2) NOT NULL, invoice_id INT NOT NULL, order_line_id INT DEFAULT NULL,
                INDEX IDX_D3D1D6932989F1FD (invoice_id), INDEX IDX_D3D1D693BB01DC09 (order_line_id), PRIMARY KEY (id),
                CONSTRAINT fk_invoice_line FOREIGN KEY (invoice_id) REFERENCES invoice (id) ON DELETE CASCADE,
                CONSTRAINT fk_invoice_line_order FOREIGN KEY (order_line_id) REFERENCES order_line (id))
             DEFAULT CHARACTER SET utf8mb4',
        );
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE invoice_line');
        $this->addSql('DROP TABLE invoice');
    }
}
