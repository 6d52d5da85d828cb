<?php

declare(strict_types=1);

namespace TallBarrel\Store\Item;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Gtin;

/** The item that somebody types or scans: by its code, a GTIN of it or its packs, or its whole name. */
final readonly class CalledItem
{
    public function __construct(private EntityManagerInterface $entities, private Gtins $gtins)
    {
    }

    /** @throws InvalidValue if there is none, or several have that name */
    public function of(string $typed): Item
    {
        $typed = trim($typed);
        if ('' === $typed) {
            throw InvalidValue::because('Type the code or the name of an item.');
        }
        $items = $this->entities->getRepository(Item::class);
        $gtin = Gtin::tryOf($typed);
        $item = $items->findOneBy(['code' => $typed])
            ?? (null === $gtin ? null : $items->findOneBy(['code' => $this->gtins->owner($gtin)]));
        if (null !== $item) {
            return $item;
        }
        $named = $items->findBy(['name' => $typed, 'archivedOn' => null], limit: 2);

        return match (count($named)) {
            1 => $named[0],
            0 => throw InvalidValue::because(
                sprintf('There is no item “%s”; type its code or its whole name.', $typed),
            ),
            default => throw InvalidValue::because(sprintf('Several items are called “%s”; type a code.', $typed)),
        };
    }
}
