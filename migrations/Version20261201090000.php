<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261201090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'What of a supplier was changed and nobody who approves has seen';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE supplier ADD agreed_before JSON DEFAULT NULL');
    }
}
