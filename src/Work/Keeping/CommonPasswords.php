<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

/** Passwords that everybody tries first. */
interface CommonPasswords
{
    public function has(string $password): bool;
}
