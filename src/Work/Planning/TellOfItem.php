<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Problems;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;

/** What planning cannot see for itself: a staple, how long it keeps, an item it sells like. */
final readonly class TellOfItem
{
    public function __construct(private EntityManagerInterface $entities, private Audit $audit)
    {
    }

    /**
     * @param string          $like     code of the item it sells like; empty for none
     * @param BigDecimal|null $factor   how much of it; null for as much
     * @param Problems        $problems what could not be read already; what else stands in the way is added, by field.
     *                                  Nothing is saved unless there are none
     */
    public function tell(
        Item $item,
        bool $staple,
        ?int $shelfDays,
        string $like,
        ?BigDecimal $factor,
        Person $person,
        Problems $problems,
    ): void {
        $problems->apply('shelf', static fn () => $item->keep($staple, $shelfDays));
        $problems->apply('like', fn () => $item->sellLike($this->other($like), $factor));
        if (!$problems->areNone()) {
            $this->entities->refresh($item);

            return;
        }
        $this->audit->note($person, $item->code, 'What planning should know of it was changed');
        $this->entities->flush();
    }

    /** @throws InvalidValue */
    private function other(string $code): ?Item
    {
        return '' === $code
            ? null
            : $this->entities->getRepository(Item::class)->findOneBy(['code' => $code]) ??
                throw InvalidValue::because(sprintf('There is no item %s for it to sell like.', $code));
    }
}
