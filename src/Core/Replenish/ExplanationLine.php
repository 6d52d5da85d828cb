<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/**
 * One line of a sum: what it stands for, its sign and amount, and what it rests on. Words are made where it is shown.
 */
final readonly class ExplanationLine
{
    /**
     * @param string                          $sign   "", "+" or "−"
     * @param float                           $amount in stock units, or in packs where the term says so
     * @param array<string, float|int|string> $with   as told at the term; days as Y-m-d
     */
    public function __construct(
        public Term $term,
        public string $sign,
        public float $amount,
        public array $with = [],
    ) {
    }
}
