<?php

declare(strict_types=1);

namespace TallBarrel\Store\Supplier;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Ordering\OrderDays;

/** The days orders are taken on, and until when. */
#[ORM\Embeddable]
final class OrderWindow
{
    /** ISO weekdays separated by commas; empty for Monday to Friday. */
    #[ORM\Column(name: 'order_weekdays', length: 20)]
    private string $weekdays = '';

    #[ORM\Column(name: 'cut_off', length: 5)]
    private string $cutOff = '16:00';

    /** @throws InvalidValue unless they are weekdays from 1 to 7, and an hour */
    public static function of(string $weekdays, string $cutOff): self
    {
        $window = new self();
        $window->weekdays = implode(',', self::numbers($weekdays));
        $window->cutOff = $cutOff;
        $window->days();

        return $window;
    }

    public function days(): OrderDays
    {
        return OrderDays::of(self::numbers($this->weekdays), $this->cutOff);
    }

    public function weekdays(): string
    {
        return $this->weekdays;
    }

    /** @return list<int> */
    private static function numbers(string $weekdays): array
    {
        return '' === trim($weekdays) ? [] : array_map(intval(...), explode(',', $weekdays));
    }
}
