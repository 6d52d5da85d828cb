<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261127120000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Order lines in parts, talk about a line, receipts taken back, several lots, unknown deliveries';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE order_line ADD part_of_id INT DEFAULT NULL,
            ADD INDEX IDX_9CE58EE1C97EF49F (part_of_id)');
        $this->addSql('ALTER TABLE order_line ADD CONSTRAINT FK_9CE58EE1A0265DD3 FOREIGN KEY (part_of_id)
            REFERENCES order_line (id)');
        $this->addSql("ALTER TABLE receipt ADD takes_back_id INT DEFAULT NULL,
            ADD why VARCHAR(200) DEFAULT '' NOT NULL,
            ADD INDEX IDX_5399B645B3E9504B (takes_back_id)");
        $this->addSql('ALTER TABLE receipt ADD CONSTRAINT FK_5399B645B3E9504B FOREIGN KEY (takes_back_id)
            REFERENCES receipt (id)');
        $this->addSql('ALTER TABLE receipt_line ADD takes_back_id INT DEFAULT NULL,
            ADD UNIQUE INDEX UNIQ_476F8F7AB3E9504B (takes_back_id)');
        $this->addSql('ALTER TABLE receipt_line ADD CONSTRAINT FK_476F8F7AB3E9504B FOREIGN KEY (takes_back_id)
            REFERENCES receipt_line (id)');
        $this->addSql(<<<'SQL'
                CREATE VIEW standing_receipt_line AS
                SELECT l.* FROM receipt_line l WHERE l.takes_back_id IS NULL
                    AND NOT EXISTS (SELECT 1 FROM receipt_line b WHERE b.takes_back_id = l.id)
            SQL);
        $this->addSql("ALTER TABLE delivery_line ADD version INT DEFAULT 1 NOT NULL,
            ADD bad NUMERIC(14, 3) DEFAULT '0.000' NOT NULL,
            ADD bad_because VARCHAR(120) DEFAULT '' NOT NULL, ADD beside_id INT DEFAULT NULL,
            ADD INDEX IDX_887C6C7A64DE9 (beside_id)");
        $this->addSql('ALTER TABLE delivery_line ADD CONSTRAINT FK_887C6C7A64DE9 FOREIGN KEY (beside_id)
            REFERENCES delivery_line (id) ON DELETE CASCADE');
        // The finder looks through these alone, and not through all there is of an item.
        $this->addSql('CREATE INDEX item_words ON item (name, code, further_names, category, gtin, archived_on)');
        $this->addSql('ALTER TABLE supplier ADD wants_xml TINYINT(1) DEFAULT 0 NOT NULL');
        $this->addSql("CREATE TABLE unknown_delivery (id INT AUTO_INCREMENT NOT NULL, state VARCHAR(10) NOT NULL,
            because VARCHAR(200) DEFAULT '' NOT NULL, what VARCHAR(300) NOT NULL, came_from VARCHAR(80) NOT NULL,
            packages INT NOT NULL, note_number VARCHAR(40) NOT NULL, carrier VARCHAR(60) NOT NULL,
            at DATETIME NOT NULL, delivery_id INT DEFAULT NULL, site_id INT NOT NULL, by_id INT NOT NULL,
            INDEX IDX_6C8027F212136921 (delivery_id), INDEX IDX_6C8027F2F6BD1646 (site_id),
            INDEX IDX_6C8027F2AAE72004 (by_id),
            INDEX unknown_by_state (state, at), PRIMARY KEY (id))");
        $this->addSql('ALTER TABLE unknown_delivery
            ADD CONSTRAINT FK_6C8027F212136921 FOREIGN KEY (delivery_id) REFERENCES delivery (id),
            ADD CONSTRAINT FK_6C8027F2F6BD1646 FOREIGN KEY (site_id) REFERENCES site (id),
            ADD CONSTRAINT FK_6C8027F2AAE72004 FOREIGN KEY (by_id) REFERENCES person (id)');
        $this->addSql("ALTER TABLE talk_line ADD about VARCHAR(120) DEFAULT '' NOT NULL");
    }
}
