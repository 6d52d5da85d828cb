<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Dock;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Money\Money;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Dock\Delivery;
use TallBarrel\Store\Dock\Transfers;
use TallBarrel\Store\Order\OrderRows;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Site\Site;

/** What the dock shows. */
final readonly class DockBoard
{
    public function __construct(
        private EntityManagerInterface $entities,
        private OrderRows $rows,
        private Transfers $transfers,
        private Rates $rates,
        private CurrentBusiness $business,
        private ClockInterface $clock,
    ) {
    }

    /**
     * What stands at the dock and what is on its way, late first.
     *
     * @return array<string, list<array{name: string, words: string, tag: string, kind: string, order: string|null,
     *      delivery: int|null, transfer: string|null}>>
     */
    public function expected(?Site $site): array
    {
        $today = $this->clock->now()->setTime(0, 0);
        $groups = [];
        $standing = [];
        foreach ($this->standing() as $delivery) {
            if (null === $site || $delivery->site->id === $site->id) {
                $numbers = array_map(static fn (PurchaseOrder $order): string => $order->number, $delivery->orders());
                $groups['Being counted'][] = [
                    'name' => $delivery->supplier->name(),
                    'words' => implode(', ', $numbers).' · '.$delivery->site->name(),
                    'tag' => 'at the dock',
                    'kind' => 'fine',
                    'order' => null,
                    'delivery' => $delivery->id,
                    'transfer' => null,
                ];
                foreach ($delivery->orders() as $order) {
                    $standing[$order->id.':'.$delivery->site->id] = true;
                }
            }
        }
        foreach ($this->rows->open() as $order) {
            $sites = array_filter(
                $order->sites,
                static fn (int $id): bool => (null === $site || $id === $site->id)
                    && !isset($standing[$order->id.':'.$id]),
                \ARRAY_FILTER_USE_KEY,
            );
            if ([] === $sites) {
                continue;
            }
            $days = $order->daysFrom($today);
            $unsure = null === $order->promisedOn;
            $groups[self::heading($days)][] = [
                'name' => $order->supplier,
                'words' => $order->number.' · '.implode(', ', $sites),
                'tag' => $days >= 0 && $unsure ? 'not confirmed' : self::when($days, $order->dueOn()),
                'kind' => $days < 0 ? 'short' : ($unsure ? 'watch' : ''),
                'order' => $order->number,
                'delivery' => null,
                'transfer' => null,
            ];
        }
        foreach ($this->transfers->underWayTo($site) as $transfer) {
            $days = (int) $today->diff($transfer->dueOn()->setTime(0, 0))->format('%r%a');
            $groups[self::heading($days)][] = [
                'name' => 'From '.$transfer->source->name(),
                'words' => $transfer->number.' · '.$transfer->target->name(),
                'tag' => self::when($days, $transfer->dueOn()),
                'kind' => $days < 0 ? 'short' : '',
                'order' => null,
                'delivery' => null,
                'transfer' => $transfer->number,
            ];
        }
        $sorted = [];
        foreach (['Being counted', 'Late', 'Today', 'Tomorrow', 'Within a week', 'Later'] as $heading) {
            if (isset($groups[$heading])) {
                $sorted[$heading] = $groups[$heading];
            }
        }

        return $sorted;
    }

    private static function heading(int $days): string
    {
        return match (true) {
            $days < 0 => 'Late',
            0 === $days => 'Today',
            1 === $days => 'Tomorrow',
            $days <= 7 => 'Within a week',
            default => 'Later',
        };
    }

    private static function when(int $days, \DateTimeImmutable $due): string
    {
        return match (true) {
            -1 === $days => '1 day late',
            $days < 0 => -$days.' days late',
            default => $due->format('D j M'),
        };
    }

    /** @return list<Delivery> being counted, with their orders */
    private function standing(): array
    {
        /** @var list<Delivery> $deliveries */
        $deliveries = $this->entities
            ->createQueryBuilder()
            ->select('d', 'l', 'ol', 'o', 's', 't')
            ->from(Delivery::class, 'd')
            ->join('d.supplier', 's')
            ->join('d.site', 't')
            ->leftJoin('d.lines', 'l')
            ->leftJoin('l.line', 'ol')
            ->leftJoin('ol.order', 'o')
            ->where('d.bookedAt IS NULL')
            ->orderBy('d.id')
            ->getQuery()
            ->getResult();

        return $deliveries;
    }

    /** The site most lines still to come are for. */
    public function likelySite(PurchaseOrder $order): ?Site
    {
        $count = $sites = [];
        foreach ($order->lines() as $line) {
            if ($line->outstanding()->isPositive()) {
                $sites[$line->site->id] = $line->site;
                $count[$line->site->id] = ($count[$line->site->id] ?? 0) + 1;
            }
        }
        arsort($count);

        return [] === $count ? null : $sites[array_key_first($count)];
    }

    /** What the count is worth in stock, in the home currency. */
    public function value(Delivery $delivery): Money
    {
        $rates = $this->rates->allOn($this->clock->now());
        $home = Money::zero($this->business->get()->currency);
        foreach ($delivery->lines() as $line) {
            $price = Money::of($line->line->price(), $line->line->order->currency);
            $rate = $rates[$price->currency->code] ?? null;
            $home =
                null === $rate
                    ? $home
                    : $home->plus($rate->toHome($price)->multipliedBy($line->counted() ?? BigDecimal::zero()));
        }

        return $home->rounded();
    }

    /** @return array<int, string> where each item is put away at this site */
    public function bins(Delivery $delivery): array
    {
        /** @var array<int, string> $bins */
        $bins = $this->entities
            ->getConnection()
            ->fetchAllKeyValue(
                'SELECT s.item_id, b.code FROM stocking s JOIN bin b ON b.id = s.bin_id WHERE s.site_id = ?',
                [$delivery->site->id],
            );

        return $bins;
    }
}
