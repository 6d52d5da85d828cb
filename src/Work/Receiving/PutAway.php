<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Bin;
use TallBarrel\Store\Site\BinKind;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Stock\ShelfPlaces;
use TallBarrel\Store\Stock\StockPlace;
use TallBarrel\Store\Stock\StockState;
use TallBarrel\Work\Keeping\AllOrNothing;

/** From the dock to the shelf: it is there to sell from now on, and lies where it was put. */
final readonly class PutAway
{
    public function __construct(
        private EntityManagerInterface $entities,
        private PutStockRight $right,
        private ShelfPlaces $places,
        private AllOrNothing $whole,
        private Audit $audit,
    ) {
    }

    /**
     * @param BigDecimal $units stock units of those at the dock
     * @param string     $bin   code of a shelf of that site
     * @param string     $key   of the form: asked twice, it is done once
     *
     * @throws Refused      if there are not so many
     * @throws InvalidValue if the bin is of no shelf there
     */
    public function put(Item $item, StockPlace $from, BigDecimal $units, string $bin, Person $by, string $key): Bin
    {
        return $this->whole->take(function () use ($item, $from, $units, $bin, $by, $key): Bin {
            if (StockState::AtDock !== $from->state) {
                throw new Refused(sprintf('It does not stand at the dock; it is %s.', $from->state->words()));
            }
            $shelf = $this->shelf($from->site, $bin);
            $this->right->become($item, $from, StockState::Available, $units, 'put away in '.$shelf->code, $by, $key);
            $this->places->put($item, $from->lot, $shelf);

            return $shelf;
        });
    }

    /** What stands on a shelf already lies in another bin from now on. */
    public function move(Item $item, Site $site, string $lot, string $bin, Person $by): Bin
    {
        return $this->whole->take(function () use ($item, $site, $lot, $bin, $by): Bin {
            $shelf = $this->shelf($site, $bin);
            $this->places->put($item, $lot, $shelf);
            $this->audit->note($by, 'item '.$item->code, sprintf(
                'Lies in %s at %s%s',
                $shelf->code,
                $site->name(),
                '' === $lot ? '' : ', lot '.$lot,
            ));

            return $shelf;
        });
    }

    /** @throws InvalidValue */
    private function shelf(Site $site, string $code): Bin
    {
        $bin = $this->entities->getRepository(Bin::class)->findOneBy(['site' => $site, 'code' => trim($code)]);
        if (null === $bin) {
            throw InvalidValue::because(sprintf('%s has no bin “%s”.', $site->name(), trim($code)));
        }
        if (BinKind::Shelf !== $bin->kind()) {
            throw InvalidValue::because(sprintf('%s is %s; choose a shelf.', $bin->code, $bin->kind()->words()));
        }

        return $bin;
    }
}
