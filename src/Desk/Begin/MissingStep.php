<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Begin;

/** One of the things a business needs to have its goods planned. */
final readonly class MissingStep
{
    /**
     * @param string $for     what it is for
     * @param string $without what works already without it
     * @param string $far     how far it is
     * @param string $page    route of the page where it is typed
     * @param string $kind    of file it may be brought by; empty for none
     */
    public function __construct(
        public string $title,
        public string $for,
        public string $without,
        public string $far,
        public bool $done,
        public string $page,
        public string $act,
        public string $kind = '',
    ) {
    }
}
