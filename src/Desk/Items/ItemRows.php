<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Items;

use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Quantity\Gtin;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Work\Keeping\ItemDetails;
use TallBarrel\Work\Keeping\ItemPlace;
use TallBarrel\Work\Keeping\PackDetails;

/** The rows of an item's form: its packs, and the sites that stock it. */
final readonly class ItemRows
{
    private function __construct()
    {
    }

    /** What was typed in them goes into the details; a row without anything is none. */
    public static function read(Fields $fields, ItemDetails $details, Problems $problems): void
    {
        [$names, $quantities, $gtins] = [
            $fields->each('pack_name'),
            $fields->each('pack_quantity'),
            $fields->each('pack_gtin'),
        ];
        $details->packs = $details->places = [];
        foreach ($names as $i => $name) {
            [$typed, $gtin] = [$quantities[$i] ?? '', $gtins[$i] ?? ''];
            if ('' === $name.$typed.$gtin) {
                continue;
            }
            $place = 'pack-'.count($details->packs);
            $quantity = $problems->attempt($place, static fn () => '' === $typed
                ? throw InvalidValue::because(sprintf('How many units are in “%s”?', $name))
                : $fields->numerals->quantity($typed));
            $read = $problems->attempt($place, static fn (): ?Gtin => '' === $gtin ? null : Gtin::of($gtin));
            if (null !== $quantity) {
                $details->packs[] = new PackDetails($name, $quantity, $read);
            }
        }
        $bins = $fields->each('bin');
        foreach (array_keys($fields->each('stocked')) as $site) {
            $bin = $bins[$site] ?? '';
            $details->places[] = new ItemPlace($site, ctype_digit($bin) ? (int) $bin : null);
        }
    }
}
