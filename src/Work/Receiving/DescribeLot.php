<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use TallBarrel\Core\Country;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Receiving\LotFacts;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\WhatMoved;
use TallBarrel\Store\Stock\LotKnown;
use TallBarrel\Store\Stock\LotTrace;
use TallBarrel\Work\Keeping\AllOrNothing;

/** What is known of a lot is put right. */
final readonly class DescribeLot
{
    private const LONGEST = 40;

    public function __construct(
        private LotTrace $lots,
        private WhatMoved $moved,
        private AllOrNothing $whole,
        private Audit $audit,
    ) {
    }

    /**
     * @param LotFacts $facts  its number, days and origin
     * @param string   $raw    country of what it is made of, or empty
     * @param string   $theirs what its supplier calls it, or empty
     *
     * @throws InvalidValue if there is no such country, or what they call it is too long
     */
    public function describe(Item $item, LotFacts $facts, string $raw, string $theirs, Person $by): void
    {
        $raw = '' === trim($raw) ? '' : Country::read($raw);
        if (mb_strlen(trim($theirs)) > self::LONGEST) {
            throw InvalidValue::because(sprintf('A lot number has at most %d characters.', self::LONGEST));
        }
        $known = new LotKnown(
            $facts->number,
            $facts->expiresOn?->format('Y-m-d'),
            $facts->madeOn?->format('Y-m-d'),
            $facts->origin,
            $raw,
            trim($theirs),
        );
        $this->whole->take(function () use ($item, $known, $by): void {
            $before = $this->lots->facts($item, $known->number)?->words() ?? 'nothing';
            $this->lots->describe($item, $known);
            $this->moved->note([$item->id]);
            $this->audit->note($by, 'item '.$item->code, mb_substr(
                sprintf('Lot %s: was %s; is %s', $known->number, $before, $known->words()),
                0,
                300,
            ));
        });
    }
}
