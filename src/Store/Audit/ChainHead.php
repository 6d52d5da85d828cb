<?php

declare(strict_types=1);

namespace TallBarrel\Store\Audit;

use TallBarrel\Core\InvalidValue;

/** Where the chain of what was noted ends: how many entries it has, and the hash of the last. */
final readonly class ChainHead
{
    public function __construct(public int $entries, public string $hash)
    {
    }

    /**
     * @param string $written "1234 0a1b…", as it is written beside a copy
     *
     * @throws InvalidValue
     */
    public static function read(string $written): self
    {
        return 1 === preg_match('/^(\d{1,12}) ([0-9a-f]{64})$/', trim($written), $found)
            ? new self((int) $found[1], $found[2])
            : throw InvalidValue::because(
                sprintf('“%s” is no head of a chain: a number and 64 hexadecimal digits.', $written),
            );
    }

    public function toString(): string
    {
        return $this->entries.' '.$this->hash;
    }
}
