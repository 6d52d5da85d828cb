<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261126090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Days of single order lines, revisions in draft, what suppliers answer and the link they do it by';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE order_line ADD wanted_on DATE DEFAULT NULL, ADD promised_on DATE DEFAULT NULL');
        $this->addSql("ALTER TABLE order_line ADD list_price NUMERIC(16, 6) NOT NULL DEFAULT 0,
            ADD discount_percent NUMERIC(7, 4) NOT NULL DEFAULT 0, ADD discount_each NUMERIC(16, 6) NOT NULL DEFAULT 0,
            ADD tax_category VARCHAR(2) DEFAULT NULL, ADD tax_percent NUMERIC(5, 2) DEFAULT NULL,
            ADD note_to_them VARCHAR(200) NOT NULL DEFAULT '', ADD note_to_us VARCHAR(200) NOT NULL DEFAULT ''");
        $this->addSql('UPDATE order_line SET list_price = price');
        $this->addSql('ALTER TABLE order_line ALTER list_price DROP DEFAULT, ALTER discount_percent DROP DEFAULT,
            ALTER discount_each DROP DEFAULT, ALTER note_to_them DROP DEFAULT, ALTER note_to_us DROP DEFAULT');
        $this->addSql("ALTER TABLE purchase_order ADD token VARCHAR(32) DEFAULT NULL,
            ADD UNIQUE INDEX UNIQ_21E210B25F37A13B (token), ADD tax_category VARCHAR(2) NOT NULL DEFAULT 'Z',
            ADD adjustments JSON NOT NULL DEFAULT '[]', ADD their_reference VARCHAR(40) NOT NULL DEFAULT '',
            ADD reminder VARCHAR(200) NOT NULL DEFAULT '', ADD remind_on DATE DEFAULT NULL,
            ADD deliver_to VARCHAR(200) NOT NULL DEFAULT '', ADD carrier VARCHAR(60) NOT NULL DEFAULT '',
            ADD project VARCHAR(60) NOT NULL DEFAULT ''");
        $this->addSql("ALTER TABLE supplier ADD tax_category VARCHAR(2) NOT NULL DEFAULT 'Z',
            ADD standing_adjustments JSON NOT NULL DEFAULT '[]', ADD paper_language VARCHAR(2) NOT NULL DEFAULT 'en',
            ADD paper_prices TINYINT(1) NOT NULL DEFAULT 1,
            ADD csv_columns VARCHAR(1000) NOT NULL DEFAULT '', ADD csv_delimiter VARCHAR(1) NOT NULL DEFAULT ',',
            ADD csv_filename VARCHAR(60) NOT NULL DEFAULT ''");
        foreach (['purchase_order', 'supplier'] as $table) {
            $this->addSql("UPDATE {$table} SET tax_category = 'S' WHERE tax_percent > 0");
        }
        $this->addSql('ALTER TABLE purchase_order ALTER tax_category DROP DEFAULT, ALTER adjustments DROP DEFAULT,
            ALTER their_reference DROP DEFAULT, ALTER reminder DROP DEFAULT, ALTER deliver_to DROP DEFAULT,
            ALTER carrier DROP DEFAULT, ALTER project DROP DEFAULT');
        $this->addSql('ALTER TABLE supplier ALTER tax_category DROP DEFAULT, ALTER standing_adjustments DROP DEFAULT,
            ALTER paper_language DROP DEFAULT, ALTER paper_prices DROP DEFAULT, ALTER csv_columns DROP DEFAULT,
            ALTER csv_delimiter DROP DEFAULT, ALTER csv_filename DROP DEFAULT');
        $this->addSql('CREATE TABLE order_amendment (order_id INT NOT NULL, by_id INT NOT NULL,
            begun_at DATETIME NOT NULL,
            revision INT NOT NULL, version INT DEFAULT 1 NOT NULL, wishes JSON NOT NULL, adjustments JSON NOT NULL,
            wanted_on DATE NOT NULL,
            note VARCHAR(500) NOT NULL, waiting TINYINT(1) NOT NULL, INDEX IDX_F6FC4627AAE72004 (by_id),
            PRIMARY KEY (order_id))');
        $this->addSql('CREATE TABLE order_answer (id INT AUTO_INCREMENT NOT NULL, order_id INT NOT NULL,
            decided_by_id INT DEFAULT NULL, revision INT NOT NULL, at DATETIME NOT NULL, state VARCHAR(12) NOT NULL,
            answered JSON NOT NULL, message VARCHAR(500) NOT NULL, INDEX IDX_19525AF08D9F6D38 (order_id),
            INDEX IDX_19525AF0E26B496B (decided_by_id), INDEX order_answer_by_state (state), PRIMARY KEY (id))');
        $this->addSql('ALTER TABLE order_amendment ADD CONSTRAINT FK_AMENDMENT_ORDER FOREIGN KEY (order_id)
            REFERENCES purchase_order (id), ADD CONSTRAINT FK_AMENDMENT_BY FOREIGN KEY (by_id) REFERENCES person (id)');
        $this->addSql('ALTER TABLE order_answer ADD CONSTRAINT FK_ANSWER_ORDER FOREIGN KEY (order_id)
            REFERENCES purchase_order (id), ADD CONSTRAINT FK_ANSWER_BY FOREIGN KEY (decided_by_id)
            REFERENCES person (id)');
        $this->addSql('CREATE TABLE kept_view (id INT AUTO_INCREMENT NOT NULL, person_id INT NOT NULL,
            name VARCHAR(40) NOT NULL, query VARCHAR(500) NOT NULL, INDEX IDX_B915167C217BBB47 (person_id),
            UNIQUE INDEX view_once (person_id, name), PRIMARY KEY (id))');
        $this->addSql('ALTER TABLE kept_view ADD CONSTRAINT FK_VIEW_PERSON FOREIGN KEY (person_id)
            REFERENCES person (id)');
        $this->addSql('CREATE TABLE requisition (id INT AUTO_INCREMENT NOT NULL, version INT DEFAULT 1 NOT NULL,
            by_id INT NOT NULL, at DATETIME NOT NULL, item_id INT DEFAULT NULL, words VARCHAR(200) NOT NULL,
            quantity NUMERIC(14, 3) NOT NULL, site_id INT NOT NULL, wanted_on DATE DEFAULT NULL,
            why VARCHAR(200) NOT NULL, state VARCHAR(12) NOT NULL, decided_by_id INT DEFAULT NULL,
            decided_at DATETIME DEFAULT NULL, reason VARCHAR(200) NOT NULL, order_id INT DEFAULT NULL,
            round_id INT DEFAULT NULL, INDEX requisition_by_state (state), PRIMARY KEY (id))');
        $this->addSql('CREATE TABLE talk_line (id INT AUTO_INCREMENT NOT NULL, subject VARCHAR(60) NOT NULL,
            by_id INT NOT NULL, at DATETIME NOT NULL, words VARCHAR(1000) NOT NULL, to_id INT DEFAULT NULL,
            state VARCHAR(10) DEFAULT NULL, INDEX talk_by_subject (subject), PRIMARY KEY (id))');
        $this->addSql('CREATE TABLE despatch (id INT AUTO_INCREMENT NOT NULL, order_id INT NOT NULL,
            at DATETIME NOT NULL, here_on DATE NOT NULL, carrier VARCHAR(60) NOT NULL, tracking VARCHAR(60) NOT NULL,
            packs JSON NOT NULL, INDEX despatch_by_tracking (tracking), PRIMARY KEY (id))');
        $this->addSql('ALTER TABLE person ADD monthly_limit NUMERIC(14, 2) DEFAULT NULL,
            ADD stand_in_id INT DEFAULT NULL, ADD stand_in_until DATE DEFAULT NULL');
        $foreign = [
            'requisition' => ['by_id' => 'person', 'item_id' => 'item', 'site_id' => 'site',
                'decided_by_id' => 'person', 'order_id' => 'purchase_order', 'round_id' => 'quote_round'],
            'talk_line' => ['by_id' => 'person', 'to_id' => 'person'],
            'despatch' => ['order_id' => 'purchase_order'],
            'person' => ['stand_in_id' => 'person'],
        ];
        $indexes = [
            'requisition' => ['by_id' => 'IDX_15E142BEAAE72004', 'item_id' => 'IDX_15E142BE126F525E',
                'site_id' => 'IDX_15E142BEF6BD1646', 'decided_by_id' => 'IDX_15E142BEE26B496B',
                'order_id' => 'IDX_15E142BE8D9F6D38', 'round_id' => 'IDX_15E142BEA6005CA0'],
            'talk_line' => ['by_id' => 'IDX_3331CCAAAAE72004', 'to_id' => 'IDX_3331CCAA30354A65'],
            'despatch' => ['order_id' => 'IDX_41B20C2E8D9F6D38'],
            'person' => ['stand_in_id' => 'IDX_34DCD1762966DC68'],
        ];
        foreach ($foreign as $table => $columns) {
            foreach ($columns as $column => $other) {
                $this->addSql(sprintf('CREATE INDEX %s ON %s (%s)', $indexes[$table][$column], $table, $column));
                $this->addSql(sprintf(
                    'ALTER TABLE %1$s ADD CONSTRAINT FK_%2$s FOREIGN KEY (%3$s) REFERENCES %4$s (id)',
                    $table,
                    strtoupper($table.'_'.$column),
                    $column,
                    $other,
                ));
            }
        }
        // Orders sent before have a link, too.
        $this->addSql("UPDATE purchase_order SET token = LOWER(HEX(RANDOM_BYTES(16)))
            WHERE state IN ('sent', 'acknowledged', 'part-received')");
        $this->addSql(
            <<<'SQL'
                CREATE OR REPLACE VIEW open_line AS
                SELECT l.id, l.order_id, l.item_id, l.site_id, l.offer_id, o.supplier_id, o.number, o.state,
                       COALESCE(l.promised_on, o.promised_on, l.wanted_on, o.wanted_on) due, o.counted_on,
                       l.packs - l.received - l.closed_short packs,
                       (l.packs - l.received - l.closed_short) * l.pack_content units,
                       (l.packs - l.received - l.closed_short) * l.price / o.foreign_for_one home_value
                FROM order_line l JOIN purchase_order o ON o.id = l.order_id
                WHERE o.state IN ('sent', 'acknowledged', 'part-received') AND l.packs > l.received + l.closed_short
            SQL,
        );
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}
