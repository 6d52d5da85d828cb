<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use TallBarrel\Core\Refused;
use TallBarrel\Store\Dock\SupplierReturn;
use TallBarrel\Store\Person\Person;

/** Letters to a supplier about goods that go back. */
interface ReturnLetter
{
    /**
     * Asks whether they may come back, and for what we want.
     *
     * @throws Refused if there is nobody to write to
     */
    public function ask(SupplierReturn $back, Person $sender): void;

    /** Says that they are on their way. */
    public function onTheWay(SupplierReturn $back, Person $sender): void;
}
