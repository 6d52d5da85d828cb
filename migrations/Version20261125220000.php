<?php

declare(strict_types=1);

namespace TallBarrel\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261125220000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'The ways between sites';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            'CREATE TABLE site_way (source_id INT NOT NULL, target_id INT NOT NULL, days INT DEFAULT NULL,
                cost NUMERIC(10, 2) NOT NULL, INDEX IDX_F5D0599953C1C61 (source_id),
                INDEX IDX_F5D0599158E0B66 (target_id), PRIMARY KEY (source_id, target_id),
                CONSTRAINT fk_way_source FOREIGN KEY (source_id) REFERENCES site (id),
                CONSTRAINT fk_way_target FOREIGN KEY (target_id) REFERENCES site (id))
             DEFAULT CHARACTER SET utf8mb4',
        );
        $this->addSql('ALTER TABLE proposal DROP spare');
        $this->addSql('ALTER TABLE staged_proposal DROP spare');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE staged_proposal ADD spare DOUBLE PRECISION NOT NULL');
        $this->addSql('ALTER TABLE proposal ADD spare DOUBLE PRECISION NOT NULL');
        $this->addSql('DROP TABLE site_way');
    }
}
