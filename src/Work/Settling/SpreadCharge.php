<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Settling\ChargeKind;
use TallBarrel\Core\Settling\Spread;
use TallBarrel\Core\Settling\SpreadBasis;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\NumberSeries;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Dock\ReceiptLine;
use TallBarrel\Store\Dock\Receipts;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\LandedCharge;
use TallBarrel\Store\Settle\LandedChargeLine;
use TallBarrel\Store\Settle\LandedCharges;
use TallBarrel\Store\Stock\CostLeft;
use TallBarrel\Work\Keeping\AllOrNothing;

/**
 * Freight, duty and the like are shared out over what came, whenever they are known: what is still there costs more
 * from then on, what was sold meanwhile is cost of sales. Taken back, all is as if it had not been.
 */
final readonly class SpreadCharge
{
    public function __construct(
        private EntityManagerInterface $entities,
        private LandedCharges $charges,
        private Receipts $receipts,
        private CostLeft $left,
        private Rates $rates,
        private PutOnStock $stock,
        private AllOrNothing $whole,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /** In the home currency, at the rate of the day. */
    public function home(Money $amount): Money
    {
        return $this->rates->on($amount->currency->code, $this->clock->now())->toHome($amount)->rounded();
    }

    /**
     * What it would do.
     *
     * @return non-empty-list<LandedShare>
     *
     * @throws InvalidValue if there is nothing to share it out over, or typed shares are not all of it
     */
    public function shares(AskedCharge $asked): array
    {
        $lines = [];
        foreach ($asked->receipts as $receipt) {
            $back = $this->receipts->takenBack($receipt);
            foreach ($receipt->lines() as $line) {
                if (null !== $line->line->item && $line->packs->isPositive() && !isset($back[$line->id])) {
                    $lines[$line->id] = [$line, $line->line->item, $line->line->pack()->toStockUnits($line->packs)];
                }
            }
        }
        if ([] === $lines) {
            throw InvalidValue::because('Nothing for the stock came with that; there is nothing to spread it over.');
        }
        $weights = array_map(
            static fn (array $one): BigDecimal => self::weight($asked, ...$one),
            $lines,
        );
        $home = $this->home($asked->amount);
        $shares = SpreadBasis::Typed === $asked->basis
            ? self::typed($home, $weights)
            : Spread::over($home, $weights);
        $found = [];
        foreach ($lines as $id => [$line, $item, $units]) {
            $left = $this->left->ofReceipt($line, $item);
            $found[] = new LandedShare($line, $item, $units, $weights[$id], $shares[$id], $left->part, $left->held);
        }

        return $found;
    }

    private static function weight(AskedCharge $asked, ReceiptLine $line, Item $item, BigDecimal $units): BigDecimal
    {
        return match ($asked->basis) {
            SpreadBasis::Value => $units->multipliedBy($line->unitCost),
            SpreadBasis::Weight => $units->multipliedBy($item->weightKg() ?? 0),
            SpreadBasis::Volume => $units->multipliedBy($item->volume() ?? 0),
            SpreadBasis::Quantity => $units,
            SpreadBasis::Typed => $asked->typed[$line->id] ?? BigDecimal::zero(),
        };
    }

    /**
     * @param array<int, BigDecimal> $typed
     *
     * @return array<int, Money>
     *
     * @throws InvalidValue
     */
    private static function typed(Money $home, array $typed): array
    {
        $sum = BigDecimal::sum(BigDecimal::zero(), ...array_values($typed));
        if (!$sum->isEqualTo($home->amount)) {
            throw InvalidValue::because(sprintf(
                'The shares are %s in all, the charge is %s.',
                $sum->strippedOfTrailingZeros(),
                $home->amount,
            ));
        }

        return array_map(static fn (BigDecimal $share): Money => Money::of($share, $home->currency), $typed);
    }

    /**
     * What was expected, and is billed with this: of the same kind, with the same receipts.
     *
     * @return list<LandedCharge>
     */
    public function replaced(AskedCharge $asked): array
    {
        $replaced = [];
        foreach ($asked->isPart ? [] : $asked->receipts as $receipt) {
            foreach ($this->charges->of($receipt) as $charge) {
                // Carriers and customs bill what a supplier was expected to; another charge is their own.
                $isMeant = $charge->kind === $asked->kind
                    && (ChargeKind::Other !== $asked->kind || $charge->supplier === $asked->supplier);
                if ($charge->isExpected && $isMeant) {
                    $replaced[$charge->id] = $charge;
                }
            }
        }

        return array_values($replaced);
    }

    /**
     * @return array<int, BigDecimal> by how much a unit costs less once what was expected is off it, by line of a
     *                                receipt; home currency
     */
    public function less(AskedCharge $asked): array
    {
        $less = [];
        foreach ($this->replaced($asked) as $charge) {
            foreach ($charge->lines() as $line) {
                $item = $line->came->line->item;
                if (null !== $item) {
                    $less[$line->came->id] = ($less[$line->came->id] ?? BigDecimal::zero())
                        ->plus($this->stock->leftOf($charge, $line, $item)->more());
                }
            }
        }

        return $less;
    }

    /**
     * What was expected goes off again for it.
     *
     * @param string $key of the form: asked twice, it is booked once
     *
     * @throws InvalidValue as shares() does, or if it is nothing
     */
    public function book(AskedCharge $asked, Person $by, string $key): LandedCharge
    {
        return $this->whole->take(function () use ($asked, $by, $key): LandedCharge {
            $known = $this->charges->byKey($key);
            if (null !== $known) {
                return $known;
            }
            if ($asked->amount->isZero()) {
                throw InvalidValue::because('A charge of nothing.');
            }
            foreach ($asked->receipts as $receipt) {
                $this->entities->lock($receipt, LockMode::PESSIMISTIC_WRITE);
            }
            $replaced = $this->replaced($asked);
            $this->stock->lock(self::items(
                array_map(static fn (LandedShare $share): Item => $share->item, $this->shares($asked)),
                ...array_map(self::itemsOf(...), $replaced),
            ));
            $now = $this->clock->now();
            $charge = new LandedCharge(
                NumberSeries::take($this->entities->getConnection(), NumberSeries::CHARGES, $now),
                $asked->kind,
                $asked->supplier,
                $asked->paper,
                $asked->amount->rounded()->amount,
                $asked->amount->currency->code,
                $this->home($asked->amount)->amount,
                $asked->basis,
                $by,
                $now,
                $key,
            );
            foreach ($replaced as $expected) {
                $this->stock->takeOff($expected, $charge->number.' came instead', $by->id);
            }
            $this->stock->put($charge, $this->shares($asked));
            foreach ($replaced as $expected) {
                $expected->isReplacedBy($charge);
            }
            foreach ($asked->receipts as $receipt) {
                $this->audit->note($by, $receipt->number, sprintf(
                    '%s: %s %s %s, %s, spread %s',
                    $charge->number,
                    $asked->kind->words(),
                    $asked->amount->rounded()->amount,
                    $asked->amount->currency->code,
                    [] === $replaced ? 'not expected' : 'instead of '.implode(', ', array_map(
                        static fn (LandedCharge $one): string => sprintf('%s of %s', $one->number, $one->home),
                        $replaced,
                    )),
                    $asked->basis->words(),
                ));
            }

            return $charge;
        });
    }

    /** @throws Refused if it was taken back already, or nothing says why */
    public function takeBack(LandedCharge $charge, string $why, Person $by): void
    {
        $this->whole->take(function () use ($charge, $why, $by): void {
            $this->entities->lock($charge, LockMode::PESSIMISTIC_WRITE);
            $this->stock->lock(self::items(self::itemsOf($charge)));
            $this->stock->takeOff($charge, $why, $by->id);
            $this->audit->note($by, $charge->number, 'Taken back: '.$charge->takenBack());
        });
    }

    /** @return list<Item> */
    private static function itemsOf(LandedCharge $charge): array
    {
        return array_values(array_filter(
            array_map(static fn (LandedChargeLine $line): ?Item => $line->came->line->item, $charge->lines()),
        ));
    }

    /**
     * @param list<Item> ...$lists
     *
     * @return list<Item> each once
     */
    private static function items(array ...$lists): array
    {
        $items = [];
        foreach (array_merge(...$lists) as $item) {
            $items[$item->id] = $item;
        }

        return array_values($items);
    }
}
