<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

/** What a bank takes: who gets how much from our account. */
interface BankFile
{
    /** @param non-empty-list<BankPayment> $payments of one currency */
    public function write(string $number, \DateTimeImmutable $on, \DateTimeImmutable $at, array $payments): string;
}
