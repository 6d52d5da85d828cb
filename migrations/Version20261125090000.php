<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/**
 * The queue, notes of what moved, rules that several queries share as views, and columns for what queries filter on.
 */
final class Version20261125090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'A queue for workers; notes of what moved; views of what is outstanding, in force and on hand';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            <<<'SQL'
                CREATE TABLE queued_message (
                    id BIGINT AUTO_INCREMENT NOT NULL, body LONGTEXT NOT NULL, headers LONGTEXT NOT NULL,
                    queue_name VARCHAR(190) NOT NULL,
                    created_at DATETIME NOT NULL, available_at DATETIME NOT NULL, delivered_at DATETIME DEFAULT NULL,
                    INDEX IDX_AF12103DFB7336F0E3BD61CE16BA31DBBF396750 (queue_name, available_at, delivered_at, id),
                    PRIMARY KEY (id)
                ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
            SQL,
        );
        $this->addSql(
            <<<'SQL'
                CREATE TABLE moved_item (
                    id BIGINT AUTO_INCREMENT NOT NULL, item_id INT DEFAULT NULL, supplier_id INT DEFAULT NULL,
                    INDEX IDX_E081BDC2126F525E (item_id), INDEX IDX_E081BDC22ADD6D8C (supplier_id), PRIMARY KEY (id),
                    CONSTRAINT FK_E081BDC2126F525E FOREIGN KEY (item_id) REFERENCES item (id) ON DELETE CASCADE,
                    CONSTRAINT FK_E081BDC22ADD6D8C FOREIGN KEY (supplier_id) REFERENCES supplier (id) ON DELETE CASCADE
                ) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
            SQL,
        );
        $this->addSql('CREATE TABLE staged_part (run_id INT NOT NULL, number INT NOT NULL, PRIMARY KEY (run_id,
            number))');
        $this->addSql('CREATE TABLE kept_figure (name VARCHAR(60) NOT NULL, figure INT NOT NULL, until BIGINT NOT NULL,
            PRIMARY KEY (name))');
        $this->addSql("ALTER TABLE business ADD decimal_mark VARCHAR(1) DEFAULT '.' NOT NULL");
        $this->addSql('ALTER TABLE import_run ADD decimal_mark VARCHAR(1) DEFAULT NULL');
        $this->addSql("ALTER TABLE price_list ADD path VARCHAR(200) DEFAULT '' NOT NULL,
            ADD message VARCHAR(500) DEFAULT '' NOT NULL");
        $this->addSql('ALTER TABLE planning_run ADD begun DOUBLE PRECISION DEFAULT 0 NOT NULL,
            ADD parts INT DEFAULT 1 NOT NULL, ADD last_moved BIGINT DEFAULT 0 NOT NULL');
        // A run that was under way in the old manner is not taken up by anybody.
        $this->addSql(
            "UPDATE planning_run SET state = 'failed', message = 'ended by an update' WHERE state = 'running'",
        );
        $this->views();
        $this->levels();
    }

    private function views(): void
    {
        $this->addSql(
            <<<'SQL'
                CREATE VIEW open_line AS
                SELECT l.id, l.order_id, l.item_id, l.site_id, l.offer_id, o.supplier_id, o.number, o.state,
                COALESCE(o.promised_on, o.wanted_on) due, o.counted_on,
                       l.packs - l.received - l.closed_short packs,
                       (l.packs - l.received - l.closed_short) * l.pack_content units,
                       (l.packs - l.received - l.closed_short) * l.price / o.foreign_for_one home_value
                FROM order_line l JOIN purchase_order o ON o.id = l.order_id
                WHERE o.state IN ('sent', 'acknowledged', 'part-received') AND l.packs > l.received + l.closed_short
            SQL,
        );
        $this->addSql(
            <<<'SQL'
                CREATE VIEW offer_in_force AS
                SELECT o.id, o.supplier_id, o.item_id, COALESCE(o.valid_from, '1000-01-01') from_day,
                COALESCE(o.valid_until, '9999-12-31') until_day
                FROM offer o WHERE o.blocked = 0
            SQL,
        );
        $this->addSql(
            <<<'SQL'
                CREATE VIEW on_hand AS
                SELECT item_id, site_id, SUM(quantity) units FROM stock_balance WHERE state = 'available'
                GROUP BY item_id, site_id
            SQL,
        );
    }

    /** What queries filter and add up leaves the explanation and the facts for columns. */
    private function levels(): void
    {
        foreach (['proposal', 'staged_proposal'] as $table) {
            $this->addSql("ALTER TABLE $table ADD safety_stock DOUBLE PRECISION DEFAULT 0 NOT NULL,
                ADD reorder_point DOUBLE PRECISION DEFAULT 0 NOT NULL,
                ADD order_up_to DOUBLE PRECISION DEFAULT 0 NOT NULL, ADD on_hand DOUBLE PRECISION DEFAULT 0 NOT NULL,
                ADD promised DOUBLE PRECISION DEFAULT 0 NOT NULL,
                ADD coming DOUBLE PRECISION DEFAULT 0 NOT NULL, ADD arrival DATE DEFAULT '1000-01-01' NOT NULL,
                ADD bias DOUBLE PRECISION DEFAULT 0 NOT NULL");
        }
        $this->addSql(
            <<<'SQL'
                UPDATE proposal SET safety_stock = COALESCE(JSON_VALUE(explanation, '$.levels.safety'), 0),
                    reorder_point = COALESCE(JSON_VALUE(explanation, '$.levels.reorder'), 0),
                    order_up_to = COALESCE(JSON_VALUE(explanation, '$.levels.upTo'), 0),
                    on_hand = COALESCE(JSON_VALUE(facts, '$.onHand'), 0),
                    promised = COALESCE(JSON_VALUE(facts, '$.promised'), 0), arrival = COALESCE(JSON_VALUE(facts,
                    '$.arrival'), '1000-01-01'), bias = COALESCE(JSON_VALUE(forecast, '$.bias'), 0)
            SQL,
        );
        // Everything is planned anew by the first worker, with the new columns and in the new words.
        $this->addSql('INSERT INTO moved_item (item_id) SELECT NULL FROM business');
    }
}
