<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

/** How many things wait at each stage of the work. */
final readonly class Waiting
{
    /**
     * @param int      $proposals listed and not drafted
     * @param int      $orders    on the way from draft to received
     * @param int      $dock      orders of which something should be here by now
     * @param int      $rounds    quote rounds that are out
     * @param int      $settle    invoices that are entered and not released
     * @param int      $toPay     invoices that are settled and not paid
     * @param int      $moved     items that changed and are to be planned again
     * @param int      $stopped   pieces of work that were given up
     * @param int      $lists     price lists brought and not applied yet
     * @param int      $putOff    proposals put off until a day to come
     * @param int      $imports   files applied so far: what rests on sales is found anew when it grows
     * @param int|null $today     entries on Today, where that is known still
     */
    public function __construct(
        public int $proposals,
        public int $orders,
        public int $dock,
        public int $rounds,
        public int $settle,
        public int $toPay,
        public int $moved,
        public int $stopped,
        public int $lists,
        public int $putOff,
        public int $imports,
        public ?int $today,
    ) {
    }
}
