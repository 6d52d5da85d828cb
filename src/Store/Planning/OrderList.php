<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\Common\Collections\Collection;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Supplier\Supplier;

/** A list to order from: fixed items, or whatever a supplier, site or category holds at the time. */
#[ORM\Entity]
class OrderList
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** @var Collection<int, Item> */
    #[ORM\ManyToMany(targetEntity: Item::class)]
    private Collection $items;

    /**
     * @param list<Item> $items fixed ones; none for a list that follows a rule
     *
     * @throws InvalidValue if it has no name, or neither items nor a rule
     */
    public function __construct(
        #[ORM\Column(length: 60, unique: true)] public readonly string $name,
        #[ORM\ManyToOne] public readonly ?Supplier $supplier = null,
        #[ORM\ManyToOne] public readonly ?Site $site = null,
        #[ORM\Column(length: 60)] public readonly string $category = '',
        array $items = [],
    ) {
        if ('' === trim($name)) {
            throw InvalidValue::because('A list needs a name.');
        }
        if ([] === $items && null === $supplier && null === $site && '' === $category) {
            throw InvalidValue::because('A list needs items, or a supplier, site or category to follow.');
        }
        $this->items = new ArrayCollection($items);
    }

    /** @return list<Item> */
    public function items(): array
    {
        return array_values($this->items->toArray());
    }

    public function isFixed(): bool
    {
        return !$this->items->isEmpty();
    }

    public function words(): string
    {
        return $this->isFixed()
            ? sprintf('%d items', $this->items->count())
            : 'follows '.
                    implode(
                        ', ',
                        array_filter(
                            [$this->supplier?->name(), $this->site?->name(), $this->category],
                            static fn (?string $part): bool => null !== $part && '' !== $part,
                        ),
                    );
    }
}
