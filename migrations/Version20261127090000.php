<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261127090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Prices agreed for groups, tax rates by name, delivery terms of an order, charges of an offer';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE tax_rate (id INT AUTO_INCREMENT NOT NULL, category VARCHAR(2) NOT NULL,
            percent NUMERIC(5, 2) NOT NULL, name VARCHAR(30) NOT NULL, from_day DATE NOT NULL,
            UNIQUE INDEX tax_rate_from (name, from_day), PRIMARY KEY (id))');
        $this->addSql('CREATE TABLE price_term (id INT AUTO_INCREMENT NOT NULL, version INT DEFAULT 1 NOT NULL,
            name VARCHAR(80) NOT NULL, supplier_group VARCHAR(40) NOT NULL, item_group VARCHAR(40) NOT NULL,
            kind VARCHAR(10) NOT NULL, basis VARCHAR(12) NOT NULL, currency VARCHAR(3) NOT NULL,
            steps VARCHAR(200) NOT NULL, first_day DATE NOT NULL, last_day DATE DEFAULT NULL,
            supplier_id INT DEFAULT NULL, item_id INT DEFAULT NULL, INDEX IDX_D85D15372ADD6D8C (supplier_id),
            INDEX IDX_D85D1537126F525E (item_id), PRIMARY KEY (id))');
        $this->addSql('ALTER TABLE price_term
            ADD CONSTRAINT FK_D85D15372ADD6D8C FOREIGN KEY (supplier_id) REFERENCES supplier (id),
            ADD CONSTRAINT FK_D85D1537126F525E FOREIGN KEY (item_id) REFERENCES item (id)');
        $this->addSql("ALTER TABLE item ADD tax_name VARCHAR(30) DEFAULT '' NOT NULL,
            ADD price_group VARCHAR(40) DEFAULT '' NOT NULL");
        $this->addSql("ALTER TABLE offer ADD usual_charges JSON DEFAULT '[]' NOT NULL");
        $this->addSql("ALTER TABLE business ADD paper_parts JSON DEFAULT '[\"their-code\", \"our-code\"]' NOT NULL");
        $this->addSql("ALTER TABLE price_list ADD mapping JSON DEFAULT '[]' NOT NULL");
        $this->addSql("ALTER TABLE person ADD seen_sites JSON DEFAULT '[]' NOT NULL");
        $this->addSql('CREATE INDEX offer_supplier_code ON offer (supplier_code, item_id)');
        $this->addSql('ALTER TABLE offer CHANGE usual_charges usual_charges JSON NOT NULL');
        $this->addSql("ALTER TABLE order_line ADD priced_by VARCHAR(300) DEFAULT '' NOT NULL");
        $this->addSql("ALTER TABLE purchase_order ADD delivery_terms VARCHAR(80) DEFAULT '' NOT NULL");
        $this->addSql('UPDATE purchase_order o JOIN supplier s ON s.id = o.supplier_id
            SET o.delivery_terms = s.delivery_terms');
        $this->addSql("ALTER TABLE supplier ADD other_delivery_terms JSON DEFAULT '[]' NOT NULL,
            ADD tax_name VARCHAR(30) DEFAULT '' NOT NULL, ADD price_group VARCHAR(40) DEFAULT '' NOT NULL");
        $this->addSql('ALTER TABLE supplier CHANGE other_delivery_terms other_delivery_terms JSON NOT NULL');
    }
}
