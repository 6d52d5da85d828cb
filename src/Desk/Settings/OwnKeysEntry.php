<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

/** What a person types on the page of their keys. */
final class OwnKeysEntry
{
    /** @param array<string, string|null> $keys by the name of the act */
    public function __construct(public array $keys)
    {
    }
}
