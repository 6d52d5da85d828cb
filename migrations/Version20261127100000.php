<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261127100000 extends AbstractMigration
{
    /** What a business begins with; it keeps its own. */
    private const REASONS = [
        'adjustment' => [
            'broken', 'found', 'lost', 'miscounted before', 'over its day', 'spoilt', 'used in the business',
            'looked at',
        ],
        'return' => [
            'broken on arrival', 'not as ordered', 'poor quality', 'too late', 'too many', 'too short a use by',
        ],
    ];

    public function getDescription(): string
    {
        return 'States of stock that are used, details of lots, serial numbers, reasons';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE reason (id INT AUTO_INCREMENT NOT NULL, words VARCHAR(40) NOT NULL,
            kind VARCHAR(12) NOT NULL, UNIQUE INDEX reason_once (kind, words), PRIMARY KEY (id))');
        foreach (self::REASONS as $kind => $reasons) {
            foreach ($reasons as $words) {
                $this->addSql('INSERT INTO reason (kind, words) VALUES (?, ?)', [$kind, $words]);
            }
        }
        $this->addSql('CREATE TABLE inspection (id INT AUTO_INCREMENT NOT NULL, lot VARCHAR(40) NOT NULL,
            units NUMERIC(14, 3) NOT NULL, looked INT NOT NULL, bad INT NOT NULL, accepted TINYINT NOT NULL,
            at DATETIME NOT NULL, item_id INT NOT NULL, site_id INT NOT NULL, supplier_id INT DEFAULT NULL,
            by_id INT NOT NULL, INDEX IDX_F9F13485126F525E (item_id), INDEX IDX_F9F13485F6BD1646 (site_id),
            INDEX IDX_F9F134852ADD6D8C (supplier_id), INDEX IDX_F9F13485AAE72004 (by_id), PRIMARY KEY (id))');
        $this->addSql("CREATE TABLE serial (id INT AUTO_INCREMENT NOT NULL, gone_on DATE DEFAULT NULL,
            gone_to VARCHAR(80) DEFAULT '' NOT NULL, number VARCHAR(40) NOT NULL, item_id INT NOT NULL,
            came_with_id INT DEFAULT NULL, UNIQUE INDEX serial_once (item_id, number),
            INDEX IDX_D374C9DC126F525E (item_id), INDEX IDX_D374C9DC665CAED8 (came_with_id), PRIMARY KEY (id))");
        $this->addSql("ALTER TABLE delivery_line ADD made_on DATE DEFAULT NULL,
            ADD origin VARCHAR(2) DEFAULT '' NOT NULL, ADD serials JSON DEFAULT '[]' NOT NULL");
        $this->addSql("ALTER TABLE item ADD lot_details VARCHAR(6) DEFAULT 'never' NOT NULL,
            ADD serials TINYINT DEFAULT 0 NOT NULL, ADD inspection VARCHAR(6) DEFAULT 'never' NOT NULL,
            ADD quality_limit VARCHAR(4) DEFAULT '1.5' NOT NULL");
        $this->addSql("ALTER TABLE lot ADD made_on DATE DEFAULT NULL, ADD origin VARCHAR(2) DEFAULT '' NOT NULL");
        // What is still to be looked at is ours, and will be free; what is held back will not.
        $this->addSql("CREATE VIEW on_hand_soon AS
            SELECT item_id, site_id, SUM(quantity) units FROM stock_balance WHERE state <> 'held'
            GROUP BY item_id, site_id");
        $this->addSql("CREATE TABLE supplier_return (id INT AUTO_INCREMENT NOT NULL, version INT DEFAULT 1 NOT NULL,
            state VARCHAR(8) NOT NULL, their_number VARCHAR(40) DEFAULT '' NOT NULL, sent_on DATE DEFAULT NULL,
            settled_with VARCHAR(60) DEFAULT '' NOT NULL, settled_on DATE DEFAULT NULL, number VARCHAR(20) NOT NULL,
            stands_in VARCHAR(20) NOT NULL, wish VARCHAR(12) NOT NULL, reason VARCHAR(40) NOT NULL,
            words VARCHAR(300) NOT NULL, at DATETIME NOT NULL, idempotency_key VARCHAR(60) NOT NULL,
            receipt_id INT NOT NULL, by_id INT NOT NULL, UNIQUE INDEX UNIQ_7CFCEDDB96901F54 (number),
            UNIQUE INDEX UNIQ_7CFCEDDB7FD1C147 (idempotency_key), INDEX IDX_7CFCEDDB2B5CA896 (receipt_id),
            INDEX IDX_7CFCEDDBAAE72004 (by_id), PRIMARY KEY (id))");
        $this->addSql('CREATE TABLE supplier_return_line (id INT AUTO_INCREMENT NOT NULL,
            uncharged TINYINT DEFAULT 0 NOT NULL, packs NUMERIC(14, 3) NOT NULL, back_id INT NOT NULL,
            came_id INT NOT NULL, INDEX IDX_6955AF0EE9583FF0 (back_id), INDEX IDX_6955AF0E10C0FD16 (came_id),
            PRIMARY KEY (id))');
        foreach (
            [
                ['supplier_return', 'FK_7CFCEDDB2B5CA896', 'receipt_id', 'receipt'],
                ['supplier_return', 'FK_7CFCEDDBAAE72004', 'by_id', 'person'],
                ['supplier_return_line', 'FK_6955AF0EE9583FF0', 'back_id', 'supplier_return'],
                ['supplier_return_line', 'FK_6955AF0E10C0FD16', 'came_id', 'receipt_line'],
                ['inspection', 'FK_F9F13485126F525E', 'item_id', 'item'],
                ['inspection', 'FK_F9F13485F6BD1646', 'site_id', 'site'],
                ['inspection', 'FK_F9F134852ADD6D8C', 'supplier_id', 'supplier'],
                ['inspection', 'FK_F9F13485AAE72004', 'by_id', 'person'],
                ['serial', 'FK_D374C9DC126F525E', 'item_id', 'item'],
                ['serial', 'FK_D374C9DC665CAED8', 'came_with_id', 'receipt_line'],
            ] as [$table, $key, $column, $to]
        ) {
            $this->addSql(sprintf(
                'ALTER TABLE %s ADD CONSTRAINT %s FOREIGN KEY (%s) REFERENCES %s (id)',
                $table,
                $key,
                $column,
                $to,
            ));
        }
    }
}
