<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261125190000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Keys of one’s own';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE person ADD single_keys JSON DEFAULT NULL');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE person DROP single_keys');
    }
}
