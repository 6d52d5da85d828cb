<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use TallBarrel\Core\Receiving\Gs1\Elements;

/** What is stuck on a thing, a bin or a delivery: words, and a symbol for the scanner. */
final readonly class Label
{
    /**
     * @param string        $key   to find it by among those that are proposed
     * @param string        $title large, such as a name
     * @param list<string>  $lines small, under it
     * @param Elements|null $gs1   as DataMatrix of GS1
     * @param string        $plain as Code 128, or as EAN-13 where it is such a number; empty for none
     */
    public function __construct(
        public string $key,
        public string $title,
        public array $lines,
        public ?Elements $gs1 = null,
        public string $plain = '',
    ) {
    }
}
