<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261201090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Changes of a supplier not seen yet; charges expected, deposits, goods on consignment';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE supplier ADD agreed_before JSON DEFAULT NULL');
        $this->addSql('CREATE INDEX movement_worth ON stock_movement (item_id, site_id, lot, day, quantity)');
        $this->addSql('CREATE INDEX movement_kind ON stock_movement (kind, day)');
        $this->addSql('ALTER TABLE landed_charge ADD is_expected TINYINT DEFAULT 0 NOT NULL,
            ADD reckoned NUMERIC(14, 2) DEFAULT NULL, ADD replaced_by_id INT DEFAULT NULL');
        $this->addSql('ALTER TABLE landed_charge ADD CONSTRAINT FK_8105EA179AC69B54 FOREIGN KEY (replaced_by_id)
            REFERENCES landed_charge (id)');
        $this->addSql('CREATE INDEX IDX_8105EA179AC69B54 ON landed_charge (replaced_by_id)');
        $this->addSql('ALTER TABLE invoice_line ADD deposit_agreed NUMERIC(14, 2) DEFAULT NULL,
            ADD deposit_id INT DEFAULT NULL');
        $this->addSql('ALTER TABLE invoice_line ADD CONSTRAINT FK_D3D1D6939815E4B1 FOREIGN KEY (deposit_id)
            REFERENCES purchase_order (id)');
        $this->addSql('CREATE INDEX IDX_D3D1D6939815E4B1 ON invoice_line (deposit_id)');
        $this->addSql("ALTER TABLE order_line ADD consigned TINYINT DEFAULT 0 NOT NULL,
            ADD still_theirs NUMERIC(14, 3) DEFAULT '0.000' NOT NULL");
        $this->addSql('ALTER TABLE offer ADD consigned TINYINT DEFAULT 0 NOT NULL,
            ADD consigned_days INT DEFAULT 0 NOT NULL');
        $this->addSql('ALTER TABLE supplier_return_line ADD theirs TINYINT DEFAULT 0 NOT NULL');
        $this->addSql('CREATE TABLE consigned_use (id INT AUTO_INCREMENT NOT NULL, packs NUMERIC(14, 3) NOT NULL,
            used TINYINT NOT NULL, day DATE NOT NULL, line_id INT NOT NULL, by_id INT NOT NULL,
            INDEX IDX_C4256CE24D7B7542 (line_id), INDEX IDX_C4256CE2AAE72004 (by_id), PRIMARY KEY (id))');
        $this->addSql('ALTER TABLE consigned_use ADD CONSTRAINT FK_C4256CE24D7B7542 FOREIGN KEY (line_id)
            REFERENCES order_line (id)');
        $this->addSql('ALTER TABLE consigned_use ADD CONSTRAINT FK_C4256CE2AAE72004 FOREIGN KEY (by_id)
            REFERENCES person (id)');
        $this->addSql("ALTER TABLE business ADD expects_charges TINYINT DEFAULT 0 NOT NULL,
            ADD own_tax VARCHAR(30) DEFAULT '' NOT NULL,
            ADD valuing VARCHAR(8) DEFAULT 'average' NOT NULL,
            ADD handling_percent NUMERIC(5, 2) DEFAULT '0.00' NOT NULL,
            ADD handling_amount NUMERIC(10, 2) DEFAULT '0.00' NOT NULL");
    }
}
