<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use TallBarrel\Store\Dock\Delivery;
use TallBarrel\Store\Dock\Receipt;
use TallBarrel\Store\Dock\SupplierReturn;
use TallBarrel\Store\Dock\Transfer;
use TallBarrel\Store\Stock\PickingPlace;

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

    /**
     * A list to pick by as long as it stands where it stood; then the note that goes with it.
     *
     * @param array<int, PickingPlace> $places by item
     */
    public function transfer(Transfer $transfer, array $places): string;

    /** The note that goes back with goods, in the supplier's language. */
    public function goingBack(SupplierReturn $back): string;
}
