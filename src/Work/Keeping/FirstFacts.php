<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

/** What is asked on the first evening. */
final class FirstFacts
{
    public string $name = '';
    /** ISO 3166, two letters. */
    public ?string $country = null;
    /** ISO 4217. */
    public ?string $currency = 'EUR';
    public string $mark = '.';
    public string $site = '';
    public string $owner = '';
    public string $email = '';
    public string $password = '';
}
