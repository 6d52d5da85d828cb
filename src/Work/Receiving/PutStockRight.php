<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Stock\Balances;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;
use TallBarrel\Store\Stock\StockPlace;
use TallBarrel\Store\Stock\StockState;
use TallBarrel\Work\Keeping\AllOrNothing;

/**
 * What stands somewhere is set to what is there in truth, held back, set free or scrapped, for a reason. What was
 * booked stays; the difference is booked beside it.
 */
final readonly class PutStockRight
{
    /** So that nobody books a slip of the finger; common practice, no source. */
    private const MOST = 1_000_000;

    public function __construct(
        private Connection $connection,
        private Balances $balances,
        private Ledger $ledger,
        private CurrentBusiness $business,
        private AllOrNothing $whole,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param BigDecimal $seen what stood there when it was looked at
     * @param string     $key  of the form: asked twice, it is booked once
     *
     * @throws InvalidValue if it cannot be so much
     * @throws Refused      without a reason, or if it moved meanwhile
     */
    public function countAs(
        Item $item,
        StockPlace $place,
        BigDecimal $seen,
        BigDecimal $truly,
        string $reason,
        Person $by,
        string $key,
    ): void {
        self::mustStandStill($place);
        $this->mustBeMeant($item, $truly, $reason, true);
        if ('' === $place->lot && $item->isLotTracked()) {
            throw new Refused(sprintf('%s is kept by lot; count one of its lots.', $item->code));
        }
        $this->book($item, $by, $key, function () use ($item, $place, $seen, $truly, $reason): array {
            $stands = $this->balances->lockedAt($item->id, $place);
            if (!$stands->isEqualTo($seen)) {
                throw new Refused(sprintf(
                    'It moved while you were counting: %s stand there by now, not %s. Look at it once more.',
                    $stands->strippedOfTrailingZeros(),
                    $seen->strippedOfTrailingZeros(),
                ));
            }
            if ($truly->isEqualTo($stands)) {
                throw new Refused('It stands so already; nothing was booked.');
            }

            return [
                [[$place, $truly->minus($stands), MovementKind::Adjusted]],
                sprintf(
                    '%s put right from %s to %s: %s',
                    $place->words(),
                    $stands->strippedOfTrailingZeros(),
                    $truly,
                    $reason,
                ),
                $reason,
            ];
        });
    }

    /** @throws InvalidValue|Refused */
    public function scrap(
        Item $item,
        StockPlace $place,
        BigDecimal $units,
        string $reason,
        Person $by,
        string $key,
    ): void {
        self::mustStandStill($place);
        $this->mustBeMeant($item, $units, $reason);
        $this->book($item, $by, $key, function () use ($item, $place, $units, $reason): array {
            $this->mustStandThere($item, $place, $units);

            return [
                [[$place, $units->negated(), MovementKind::Scrapped]],
                sprintf('%s scrapped at %s: %s', $units, $place->words(), $reason),
                $reason,
            ];
        });
    }

    /** @throws InvalidValue|Refused */
    public function become(
        Item $item,
        StockPlace $place,
        StockState $state,
        BigDecimal $units,
        string $reason,
        Person $by,
        string $key,
    ): void {
        if ($state === $place->state) {
            throw new Refused(sprintf('It is %s already.', $state->words()));
        }
        self::mustStandStill($place);
        $this->mustBeMeant($item, $units, $reason);
        $this->book($item, $by, $key, function () use ($item, $place, $state, $units, $reason): array {
            $this->mustStandThere($item, $place, $units);

            return [
                [
                    [$place, $units->negated(), MovementKind::Inspected],
                    [$place->in($state), $units, MovementKind::Inspected],
                ],
                sprintf('%s of %s now %s: %s', $units, $place->words(), $state->words(), $reason),
                $reason,
            ];
        });
    }

    /** Home currency; 0 where nobody knows what one costs. */
    public static function worth(Item $item, BigDecimal $units): BigDecimal
    {
        return $units->abs()->multipliedBy($item->averageCost() ?? $item->standardCost() ?? 0);
    }

    /**
     * @param BigDecimal $worth home currency, of all that is put right at once
     *
     * @throws Refused if it is more than their role may
     */
    public function mustBeAllowed(Person $by, BigDecimal $worth): void
    {
        $limit = $this->business->get()->stockLimit($by->role());
        if (null !== $limit && $worth->isGreaterThan($limit)) {
            throw new Refused(sprintf(
                'That is worth more than the %s may put right at once, %s; ask the owner.',
                $by->role()->value,
                $limit->strippedOfTrailingZeros(),
            ));
        }
    }

    /** @throws InvalidValue|Refused */
    private function mustBeMeant(Item $item, BigDecimal $units, string $reason, bool $orNone = false): void
    {
        if ('' === trim($reason)) {
            throw new Refused('Say why; a reason is kept with it.');
        }
        if ($units->isNegative() || (!$orNone && $units->isZero())) {
            throw InvalidValue::because(
                sprintf('%s cannot be; expected %s.', $units, $orNone ? '0 or more' : 'above 0'),
            );
        }
        if ($units->isGreaterThan(self::MOST)) {
            throw InvalidValue::because(sprintf('%s is more than %s at once.', $units, number_format(self::MOST)));
        }
        if (!$item->unit->isDivisible() && $units->strippedOfTrailingZeros()->getScale() > 0) {
            throw InvalidValue::because(sprintf('%s is no whole number of %s.', $units, $item->unit->symbol()));
        }
    }

    /** @throws Refused */
    private function mustStandThere(Item $item, StockPlace $place, BigDecimal $units): void
    {
        $stands = $this->balances->lockedAt($item->id, $place);
        if ($stands->isLessThan($units)) {
            throw new Refused(sprintf(
                '%s stand at %s, not %s.',
                $stands->strippedOfTrailingZeros(),
                $place->words(),
                $units->strippedOfTrailingZeros(),
            ));
        }
    }

    /**
     * @param callable(): array{list<array{StockPlace, BigDecimal, MovementKind}>, string, string} $decide
     *      what moves, in words for the record, and the reason
     */
    private function book(Item $item, Person $by, string $key, callable $decide): void
    {
        $this->whole->take(function () use ($item, $by, $key, $decide): void {
            $known = $this->connection->fetchOne(
                'SELECT 1 FROM stock_movement WHERE idempotency_key = ?',
                ['right-'.$key.':0'],
            );
            if (false !== $known) {
                return;
            }
            [$moves, $words, $reason] = $decide();
            $postings = [];
            foreach ($moves as $n => [$place, $units, $kind]) {
                if (MovementKind::Inspected !== $kind) {
                    $this->mustBeAllowed($by, self::worth($item, $units));
                }
                $postings[] = new Posting(
                    $item->id,
                    $place->site->id,
                    $kind,
                    $units,
                    null,
                    $this->clock->now()->setTime(0, 0),
                    mb_substr($reason, 0, 60),
                    'right-'.$key.':'.$n,
                    $place->lot,
                    $place->state,
                );
            }
            $this->ledger->enter($postings, $by->id);
            $this->audit->note($by, 'item '.$item->code, $words);
        });
    }

    /** @throws Refused if it is on its way; what came of it is said where it is counted */
    private static function mustStandStill(StockPlace $place): void
    {
        if (StockState::OnItsWay === $place->state) {
            throw new Refused('It is on its way; count it in Between sites.');
        }
    }
}
