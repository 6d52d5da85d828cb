<?php

declare(strict_types=1);

namespace TallBarrel\Store\Type;

use Doctrine\DBAL\Platforms\AbstractPlatform;
use Doctrine\DBAL\Types\JsonType;

/** JSON that only we write, in a column of text, which the database does not read through wherever a row is put. */
final class JsonTextType extends JsonType
{
    public const NAME = 'json_text';

    public function getSQLDeclaration(array $column, AbstractPlatform $platform): string
    {
        return $platform->getClobTypeDeclarationSQL($column);
    }
}
