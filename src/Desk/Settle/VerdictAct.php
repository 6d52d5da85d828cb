<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settle;

/** One thing that may be done about a difference. */
final readonly class VerdictAct
{
    /**
     * @param string      $field quantity or price
     * @param string      $value of the verdict
     * @param string|null $ask   what is asked first; null where nothing goes out
     */
    public function __construct(public string $field, public string $value, public string $words, public ?string $ask)
    {
    }
}
