<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/**
 * Price lists, set beside what stands before they are applied.
 */
final class Version20261124090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Price lists and their lines; the content of a pack beside its price over time';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE price_list_row (id INT AUTO_INCREMENT NOT NULL, move VARCHAR(10) NOT NULL,
                file_line INT NOT NULL, code VARCHAR(40) NOT NULL, description VARCHAR(160) NOT NULL,
                pack_name VARCHAR(30) NOT NULL, content NUMERIC(18, 6) NOT NULL, old_content NUMERIC(18,
                6) DEFAULT NULL, minimum NUMERIC(14, 3) NOT NULL, multiple NUMERIC(14, 3) NOT NULL,
                lead_days INT NOT NULL, old_steps JSON DEFAULT NULL, steps JSON DEFAULT NULL, percent NUMERIC(9,
                2) DEFAULT NULL, yearly NUMERIC(14, 2) DEFAULT NULL, chosen TINYINT NOT NULL, list_id INT NOT NULL,
                offer_id INT DEFAULT NULL, item_id INT DEFAULT NULL, INDEX IDX_F70551E13DAE168B (list_id),
                INDEX IDX_F70551E153C674EE (offer_id), INDEX IDX_F70551E1126F525E (item_id),
                INDEX price_list_row_by_move (list_id, move, percent), PRIMARY KEY (id))
                DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE price_list (id INT AUTO_INCREMENT NOT NULL, state VARCHAR(10) NOT NULL,
                limit_percent NUMERIC(5, 2) NOT NULL, from_day DATE NOT NULL, until_day DATE DEFAULT NULL,
                line_count INT NOT NULL, bad_count INT NOT NULL, problems JSON NOT NULL,
                settled_at DATETIME DEFAULT NULL, applied_count INT NOT NULL, at DATETIME NOT NULL,
                filename VARCHAR(120) NOT NULL, complete TINYINT NOT NULL, supplier_id INT NOT NULL,
                by_id INT NOT NULL, INDEX IDX_399A0AA22ADD6D8C (supplier_id), INDEX IDX_399A0AA2AAE72004 (by_id),
                PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE price_list_row ADD CONSTRAINT FK_F70551E13DAE168B FOREIGN KEY (list_id) REFERENCES price_list
                (id) ON DELETE CASCADE
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE price_list_row ADD CONSTRAINT FK_F70551E153C674EE FOREIGN KEY (offer_id) REFERENCES offer (id)
                ON DELETE CASCADE
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE price_list_row ADD CONSTRAINT FK_F70551E1126F525E FOREIGN KEY (item_id) REFERENCES item (id)
                ON DELETE CASCADE
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE price_list ADD CONSTRAINT FK_399A0AA22ADD6D8C FOREIGN KEY (supplier_id) REFERENCES supplier (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE price_list ADD CONSTRAINT FK_399A0AA2AAE72004 FOREIGN KEY (by_id) REFERENCES person (id)
        SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE offer_price ADD pack_content NUMERIC(18, 6) DEFAULT NULL
        SQL);
    }
}
