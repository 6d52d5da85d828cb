<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

/** What is known of a lot. */
final readonly class LotKnown
{
    /**
     * @param string|null $expires   Y-m-d
     * @param string|null $made      Y-m-d
     * @param string      $origin    ISO 3166, or empty
     * @param string      $rawOrigin of what it is made of; ISO 3166, or empty
     * @param string      $theirs    what its supplier calls it
     */
    public function __construct(
        public string $number,
        public ?string $expires,
        public ?string $made,
        public string $origin,
        public string $rawOrigin,
        public string $theirs,
    ) {
    }

    /** "use by 31 Mar 2027, made 1 Jan 2026, from DE". */
    public function words(): string
    {
        $parts = [
            'use by ' => $this->expires, 'made ' => $this->made, 'from ' => $this->origin,
            'of ' => $this->rawOrigin, 'theirs ' => $this->theirs,
        ];
        $said = [];
        foreach ($parts as $word => $value) {
            if (null !== $value && '' !== $value) {
                $said[] = $word.$value;
            }
        }

        return [] === $said ? 'nothing' : implode(', ', $said);
    }
}
