<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Stock\Shelf;
use TallBarrel\Store\Stock\ShelfRow;
use TallBarrel\Store\Stock\StockPlace;
use TallBarrel\Store\Stock\StockState;
use TallBarrel\Work\Keeping\AllOrNothing;

/** Books what was counted along a shelf: all of it, or nothing and why. */
final readonly class CountShelf
{
    public function __construct(
        private EntityManagerInterface $entities,
        private PutStockRight $right,
        private Shelf $shelf,
        private ClockInterface $clock,
        private AllOrNothing $whole,
    ) {
    }

    /**
     * @param list<ShelfRow>                    $looked  all that were counted
     * @param list<array{ShelfRow, BigDecimal}> $counted those that differ, as they stood when that was shown, with
     *                                                  what is there in truth
     * @param string                            $key     of the form: asked twice, it is booked once
     *
     * @return int how many were put right
     *
     * @throws Refused      if one of them moved meanwhile, or there is no reason
     * @throws InvalidValue if it cannot be so much
     */
    public function book(
        Site $site,
        array $looked,
        array $counted,
        string $reason,
        Person $by,
        string $key,
    ): int {
        return $this->whole->take(function () use ($site, $looked, $counted, $reason, $by, $key): int {
            $worth = BigDecimal::zero();
            foreach ($counted as [$row, $truly]) {
                $worth = $worth->plus($truly->minus($row->stands)->abs()->multipliedBy($row->cost));
            }
            $this->right->mustBeAllowed($by, $worth);
            foreach ($counted as $n => [$row, $truly]) {
                $item = $this->entities->find(Item::class, $row->item) ?? throw new Refused($row->code.' is gone.');
                try {
                    $this->right->countAs(
                        $item,
                        new StockPlace($site, StockState::Available, $row->lot),
                        $row->stands,
                        $truly,
                        $reason,
                        $by,
                        $key.'-'.$n,
                    );
                } catch (Refused|InvalidValue $problem) {
                    throw new Refused(sprintf('%s: %s', $row->code, $problem->getMessage()));
                }
            }

            $this->shelf->counted($site, $this->clock->now(), ...$looked);

            return count($counted);
        });
    }
}
