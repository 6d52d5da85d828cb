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

    private const MOST_KNOWN = 2000;

    /** @var array<string, BigDecimal> */
    private array $known = [];

    public function getSQLDeclaration(array $column, AbstractPlatform $platform): string
    {
        return $platform->getDecimalTypeDeclarationSQL($column);
    }

    public function convertToPHPValue(mixed $value, AbstractPlatform $platform): ?BigDecimal
    {
        return match (true) {
            null === $value, $value instanceof BigDecimal => $value,
            is_string($value) => $this->known($value),
            default => throw InvalidType::new($value, self::NAME, ['string']),
        };
    }

    /** Columns hold the same few figures over and over, most of them zeros: each is read once. */
    private function known(string $value): BigDecimal
    {
        if (count($this->known) > self::MOST_KNOWN) {
            $this->known = [];
        }

        return $this->known[$value] ??= BigDecimal::of($value)->strippedOfTrailingZeros();
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
