<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Receiving\InspectionRule;
use TallBarrel\Core\Receiving\SamplingPlan;
use TallBarrel\Core\Receiving\Severity;
use TallBarrel\Core\Receiving\SwitchingRules;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Stock\Balances;
use TallBarrel\Store\Stock\InInspection;
use TallBarrel\Store\Stock\Inspection;
use TallBarrel\Store\Stock\Inspections;
use TallBarrel\Store\Stock\StockPlace;
use TallBarrel\Store\Stock\StockState;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Keeping\AllOrNothing;

/** Goods in inspection are taken or not, by how many of those looked at are bad. */
final readonly class InspectGoods
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Connection $connection,
        private Balances $balances,
        private PutStockRight $right,
        private Inspections $inspections,
        private InInspection $waiting,
        private AllOrNothing $whole,
        private ClockInterface $clock,
    ) {
    }

    /** How many to look at, and how many bad ones are too many, by how the lots before were found. */
    public function plan(Item $item, StockPlace $place, BigDecimal $units): SamplingPlan
    {
        return SamplingPlan::of(
            self::whole($units),
            $item->qualityLimit(),
            $this->switching($item, $place)->severity,
            $item->inspectionLevel(),
        );
    }

    /** What the lots of this supplier before say of the next one. */
    public function switching(Item $item, StockPlace $place): SwitchingRules
    {
        return SwitchingRules::after(
            $this->inspections->before($item, $this->supplierOf($item, $place)),
            $item->qualityLimit(),
            InspectionRule::Fewer === $item->inspection(),
            $item->inspectionLevel(),
        );
    }

    private static function whole(BigDecimal $units): int
    {
        return max(1, (int) ceil($units->toFloat()));
    }

    /**
     * Taken, the good ones are free and the bad ones held back; refused, all of it is held back. Where every one was to
     * be looked at, the good ones are free whatever the others are.
     *
     * @param int    $bad of those looked at
     * @param string $key of the form: asked twice, it is done once
     *
     * @return Inspection what came of it
     *
     * @throws InvalidValue if more would be bad than there are
     * @throws Refused      if nothing stands there in inspection
     */
    public function inspect(Item $item, StockPlace $place, int $bad, Person $by, string $key): Inspection
    {
        return $this->whole->take(function () use ($item, $place, $bad, $by, $key): Inspection {
            $units = $this->balances->lockedAt($item->id, $place);
            if (StockState::InInspection !== $place->state || !$units->isPositive()) {
                throw new Refused(sprintf('Nothing of %s is in inspection there any more.', $item->code));
            }
            $all = !$item->inspection()->isSample();
            $plan = $this->plan($item, $place, $units);
            $looked = $all ? self::whole($units) : $plan->sample;
            if ($bad < 0 || $bad > $looked) {
                throw InvalidValue::because(sprintf('%d of %d looked at cannot be bad.', $bad, $looked));
            }
            $accepted = $all || $plan->accepts($bad);
            $held = $accepted ? BigDecimal::min(BigDecimal::of($bad), $units) : $units;
            $words = sprintf('%d of %d looked at bad, %s', $bad, $looked, $accepted ? 'taken' : 'refused');
            $free = $units->minus($held);
            $since = $this->waiting->since($item->id, $place->site->id, $place->lot);
            if ($held->isPositive()) {
                $this->right->become($item, $place, StockState::Held, $held, $words, $by, $key.'-held');
            }
            if ($free->isPositive()) {
                $this->right->become($item, $place, StockState::Available, $free, $words, $by, $key.'-free');
            }
            $found = new Inspection(
                $item,
                $place->site,
                $this->supplierOf($item, $place),
                $place->lot,
                $units,
                $looked,
                $bad,
                $accepted,
                $by,
                $this->clock->now(),
                $all ? Severity::Normal : $plan->severity,
                null === $since ? null : new \DateTimeImmutable($since),
            );
            $this->entities->persist($found);

            return $found;
        });
    }

    /** Whose goods came last into that place. */
    private function supplierOf(Item $item, StockPlace $place): ?Supplier
    {
        $id = $this->connection->fetchOne(
            'SELECT d.supplier_id FROM receipt_line x JOIN receipt r ON r.id = x.receipt_id
                JOIN delivery d ON d.id = r.delivery_id JOIN order_line l ON l.id = x.line_id
             WHERE l.item_id = ? AND d.site_id = ? AND x.lot = ? ORDER BY r.id DESC LIMIT 1',
            [$item->id, $place->site->id, $place->lot],
        );

        return is_int($id) ? $this->entities->find(Supplier::class, $id) : null;
    }
}
