<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving;

/** What we want for goods that go back. */
enum ReturnWish: string
{
    case Credit = 'credit';
    case Replacement = 'replacement';
    /** They stay, for less. */
    case LowerPrice = 'lower-price';

    public function words(): string
    {
        return match ($this) {
            self::Credit => 'a credit note',
            self::Replacement => 'the same once more',
            self::LowerPrice => 'to keep them for less',
        };
    }

    /** Whether the goods go back at all. */
    public function goesBack(): bool
    {
        return self::LowerPrice !== $this;
    }
}
