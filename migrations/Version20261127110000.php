<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261127110000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Whom an order line is for, who is paid, who is asked of a category, which changes need a new yes';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE category_approval (category VARCHAR(60) NOT NULL, above NUMERIC(14, 2) NOT NULL,
            asked_id INT NOT NULL, INDEX IDX_A19A1150BA46CE28 (asked_id), PRIMARY KEY (category))');
        $this->addSql('ALTER TABLE category_approval ADD CONSTRAINT FK_A19A1150BA46CE28 FOREIGN KEY (asked_id)
            REFERENCES person (id)');
        $this->addSql("ALTER TABLE business ADD yes_rules JSON DEFAULT '{}' NOT NULL");
        $this->addSql("ALTER TABLE order_line ADD cost_account VARCHAR(20) DEFAULT '' NOT NULL,
            ADD for_whom VARCHAR(80) DEFAULT '' NOT NULL, ADD promise_id INT DEFAULT NULL,
            ADD INDEX IDX_9CE58EE12C4D4611 (promise_id)");
        $this->addSql('ALTER TABLE order_line ADD CONSTRAINT FK_9CE58EE12C4D4611 FOREIGN KEY (promise_id)
            REFERENCES customer_promise (id)');
        $this->addSql('ALTER TABLE purchase_order ADD paid_to_id INT DEFAULT NULL,
            ADD INDEX IDX_21E210B2E549AC35 (paid_to_id)');
        $this->addSql('ALTER TABLE purchase_order ADD CONSTRAINT FK_21E210B2E549AC35 FOREIGN KEY (paid_to_id)
            REFERENCES supplier (id)');
    }
}
