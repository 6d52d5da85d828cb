<?php

declare(strict_types=1);

namespace TallBarrel\Store\Type;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Platforms\AbstractPlatform;
use Doctrine\DBAL\Types\Exception\InvalidType;
use Doctrine\DBAL\Types\Type;

/** A DECIMAL column as an exact decimal. */
final class BigDecimalType extends Type
{
    public const NAME = 'big_decimal';

    public function getSQLDeclaration(array $column, AbstractPlatform $platform): string
    {
        return $platform->getDecimalTypeDeclarationSQL($column);
    }

    public function convertToPHPValue(mixed $value, AbstractPlatform $platform): ?BigDecimal
    {
        return null === $value || $value instanceof BigDecimal
            ? $value
            : BigDecimal::of(
                is_string($value) ? $value : throw InvalidType::new($value, self::NAME, ['string']),
            )->strippedOfTrailingZeros();
    }

    public function convertToDatabaseValue(mixed $value, AbstractPlatform $platform): ?string
    {
        return match (true) {
            null === $value => null,
            $value instanceof BigDecimal => (string) $value,
            default => throw InvalidType::new($value, self::NAME, ['null', BigDecimal::class]),
        };
    }
}
