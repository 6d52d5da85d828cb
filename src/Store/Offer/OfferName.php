<?php

declare(strict_types=1);

namespace TallBarrel\Store\Offer;

use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\OneTrip;

/** One offer of an item, to choose it: whose it is, and in what it comes. */
final readonly class OfferName
{
    private function __construct(public int $id, public string $supplier, public Pack $pack)
    {
    }

    public static function of(Offer $offer): self
    {
        return new self($offer->id, $offer->supplier->name(), $offer->rule()->pack);
    }

    /** All offers of an item, asked along with other things: see in(). */
    public static function ask(OneTrip $trip, Item $item): void
    {
        $trip->ask(
            'offers',
            ['id', 'name', 'pack_name', 'pack_content'],
            'place, id',
            'SELECT o.id, s.name, o.pack_name, o.pack_content, o.rank place FROM offer o
             JOIN supplier s ON s.id = o.supplier_id WHERE o.item_id = ?',
            [$item->id],
        );
    }

    /**
     * @param array<string, list<array<string, string|null>>> $answers
     *
     * @return list<self> the first choice first
     */
    public static function in(array $answers): array
    {
        return array_map(
            static fn (array $row): self => new self(
                (int) $row['id'],
                (string) $row['name'],
                Pack::of((string) $row['pack_name'], (string) $row['pack_content']),
            ),
            $answers['offers'],
        );
    }
}
