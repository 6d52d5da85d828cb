<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Problems;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Planning\OrderList;
use TallBarrel\Store\Planning\OrderLists;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Supplier\Supplier;

/** Keeps a list to order from, and gives it up. */
final readonly class KeepOrderList
{
    public function __construct(private EntityManagerInterface $entities, private OrderLists $lists)
    {
    }

    /**
     * @param array<int, string> $codes    of items, by the number of the line
     * @param Problems           $problems at list, items
     *
     * @return OrderList|null null where something stands in the way
     */
    public function add(
        string $name,
        ?Supplier $supplier,
        ?Site $site,
        string $category,
        array $codes,
        Problems $problems,
    ): ?OrderList {
        $items = [];
        foreach ($codes as $number => $code) {
            $item = $this->entities->getRepository(Item::class)->findOneBy(['code' => $code]);
            if (null === $item) {
                $problems->refuse('items', sprintf('Line %d: there is no item %s.', $number, $code));
            } else {
                $items[$item->id] = $item;
            }
        }
        if ([] !== array_filter($this->lists->all(), static fn (OrderList $list): bool => $list->name === $name)) {
            $problems->refuse('list', sprintf('There is a list called “%s” already.', $name));
        }
        if (!$problems->areNone()) {
            return null;
        }
        $list = $problems->attempt(
            'list',
            static fn (): OrderList => new OrderList($name, $supplier, $site, $category, array_values($items)),
        );
        if (null !== $list) {
            $this->entities->persist($list);
            $this->entities->flush();
        }

        return $list;
    }

    public function giveUp(int $id): void
    {
        $list = $this->entities->find(OrderList::class, $id);
        if (null !== $list) {
            $this->entities->remove($list);
            $this->entities->flush();
        }
    }
}
