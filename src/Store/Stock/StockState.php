<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

/** What may be done with stock. */
enum StockState: string
{
    /** From another site of ours, where it is to be. */
    case OnItsWay = 'on-its-way';
    case AtDock = 'at-dock';
    case InInspection = 'in-inspection';
    case Available = 'available';
    case Held = 'held';

    public function words(): string
    {
        return match ($this) {
            self::OnItsWay => 'on its way',
            self::AtDock => 'at the dock',
            self::InInspection => 'in inspection',
            self::Available => 'available',
            self::Held => 'held back',
        };
    }
}
