<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use TallBarrel\Store\Dock\Delivery;
use TallBarrel\Store\Dock\Receipt;

/** What is printed at the dock, as PDF. */
interface DockPaper
{
    /** What was booked in, with a line to sign for what is not for the stock. */
    public function receipt(Receipt $receipt): string;

    /**
     * To count with a pencil; typed in afterwards.
     *
     * @param bool $blind whether nothing gives the ordered amounts away
     */
    public function countingSheet(Delivery $delivery, bool $blind): string;
}
