<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261127120000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Order lines delivered in parts; talk about a line';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE order_line ADD part_of_id INT DEFAULT NULL,
            ADD INDEX IDX_9CE58EE1C97EF49F (part_of_id)');
        $this->addSql('ALTER TABLE order_line ADD CONSTRAINT FK_9CE58EE1A0265DD3 FOREIGN KEY (part_of_id)
            REFERENCES order_line (id)');
        $this->addSql("ALTER TABLE talk_line ADD about VARCHAR(120) DEFAULT '' NOT NULL");
    }
}
