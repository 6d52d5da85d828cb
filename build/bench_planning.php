<?php

declare(strict_types=1);

/*
 * Planning at the size of a large shop: item-sites with three years of weekly history made up in a database of their
 * own, from rows to saved proposals by the workers that run, as after a press of Recalculate, and the board over them.
 * Usage: php build/bench_planning.php ITEM_SITES
 */

use Doctrine\DBAL\Connection;
use TallBarrel\Kernel;
use TallBarrel\Store\BulkInsert;

require dirname(__DIR__).'/vendor/autoload.php';
require dirname(__DIR__).'/config/environment.php';

$count = (int) ($argv[1] ?? 1000);
$kernel = new Kernel($_SERVER['APP_ENV'], (bool) $_SERVER['APP_DEBUG']);
$kernel->boot();
$connection = $kernel->getContainer()->get('doctrine.dbal.default_connection');
assert($connection instanceof Connection);
$today = new DateTimeImmutable('today', new DateTimeZone('UTC'));
foreach (
    [
        'proposal',
        'staged_proposal',
        'planning_run',
        'sales_day',
        'stock_balance',
        'stock_movement',
        'stocking',
        'planned_demand',
        'customer_promise',
        'item_policy',
        'history_verdict',
        'forecast_adjustment',
        'put_off',
        'order_list_item',
        'receipt_line',
        'receipt',
        'delivery_line',
        'delivery',
        'sent_document',
        'order_revision',
        'order_line',
        'purchase_order',
        'price_break',
        'offer_price',
        'price_list_row',
        'price_list',
        'agreement',
        'quote_answer',
        'quote_letter',
        'quote',
        'quote_item',
        'round_file',
        'quote_round',
        'offer',
        'lot',
        'item',
    ] as $table
) {
    $connection->executeStatement('SET FOREIGN_KEY_CHECKS = 0');
    $connection->executeStatement('TRUNCATE TABLE '.$table);
}
$connection->executeStatement('SET FOREIGN_KEY_CHECKS = 1');
/** @var list<int> $suppliers */
$suppliers = $connection->fetchFirstColumn('SELECT id FROM supplier ORDER BY id');
/** @var list<int> $sites */
$sites = $connection->fetchFirstColumn('SELECT id FROM site ORDER BY id LIMIT 2');
$items = new BulkInsert($connection, 'item', [
    'id',
    'code',
    'name',
    'category',
    'unit',
    'sold',
    'lot_tracked',
    'weight_kg',
    'sales_price',
    'average_cost',
    'standard_cost',
    'version',
]);
$stocking = new BulkInsert($connection, 'stocking', ['item_id', 'site_id']);
$offers = new BulkInsert($connection, 'offer', [
    'id',
    'supplier_id',
    'item_id',
    'supplier_code',
    'pack_name',
    'pack_content',
    'minimum',
    'multiple',
    'split',
    'lead_days',
    'rank',
    'version',
    'usual_charges',
]);
$breaks = new BulkInsert($connection, 'price_break', ['offer_id', 'from_packs', 'price']);
$sales = new BulkInsert($connection, 'sales_day', ['item_id', 'site_id', 'day', 'quantity', 'out_of_stock']);
$balances = new BulkInsert($connection, 'stock_balance', ['item_id', 'site_id', 'state', 'lot', 'quantity']);
$stocking->after($items);
$offers->after($items);
$breaks->after($offers);
$sales->after($items);
$balances->after($items);
mt_srand(20261123);
$weeks = array_map(
    static fn (int $ago): string => $today->modify('-'.(7 * $ago + 3).' days')->format('Y-m-d'),
    range(0, 155),
);
for ($n = 1; $n <= intdiv($count, 2); ++$n) {
    $cost = mt_rand(100, 6000) / 100;
    $items->add(
        $n,
        sprintf('BENCH-%05d', $n),
        'Item '.$n,
        'Category '.$n % 40,
        'EA',
        true,
        false,
        '1',
        (string) round(1.7 * $cost, 2),
        (string) $cost,
        (string) $cost,
        1,
    );
    $supplier = $suppliers[$n % count($suppliers)];
    $offers->add($n, $supplier, $n, 'B-'.$n, 'case', 12, 1, 1, false, mt_rand(4, 21), 1, 1, '[]');
    $breaks->add($n, 1, (string) (12 * $cost));
    foreach ($sites as $site) {
        $stocking->add($n, $site);
        $mean = exp(mt_rand(-10, 45) / 10);
        $phase = mt_rand(0, 51);
        $swing = mt_rand(0, 80) / 100;
        $total = 0;
        foreach ($weeks as $ago => $day) {
            $expected = $mean * (1 + $swing * sin((2 * M_PI * (156 - $ago + $phase)) / 52));
            $noise = $expected + sqrt(max(0.1, $expected)) * (mt_rand(-150, 150) / 100);
            $sold =
                $expected < 3 ? (mt_rand(0, 100) < 30 * $expected ? mt_rand(1, 4) : 0) : max(0, (int) round($noise));
            if ($sold > 0) {
                $sales->add($n, $site, $day, $sold, false);
                $total += $sold;
            }
        }
        $balances->add($n, $site, 'available', '', (int) round((($total / 156) * mt_rand(0, 80)) / 10));
    }
}
foreach ([$items, $stocking, $offers, $breaks, $sales, $balances] as $bulk) {
    $bulk->flush();
}
$rows = $connection->fetchOne('SELECT COUNT(*) FROM sales_day');
$connection->executeStatement('UPDATE business SET monthly_budget = NULL');
exec('php '.escapeshellarg(dirname(__DIR__).'/bin/console').' cache:pool:clear cache.app -q');
$console = escapeshellarg(dirname(__DIR__).'/bin/console');
/** Seconds from the press to the last proposal in place, as the command says. */
$planned = static function (string $options) use ($console): float {
    exec('/usr/bin/env php '.$console.' planning:run --leave '.$options.' 2>&1', $output, $failed);
    $said = implode("\n", $output);
    0 === $failed && 1 === preg_match('/planned in ([\d.]+) s/', $said, $found) || exit($said."\n");

    return (float) $found[1];
};
$seconds = $planned('--afresh');
$again = $planned('');
printf(
    "%d item-sites, %s rows of history: %.1f s, %.0f a second; again with nothing changed %.1f s\n",
    $count,
    number_format((int) (is_numeric($rows) ? $rows : 0)),
    $seconds,
    $count / $seconds,
    $again,
);
printf(
    "listed on the board: %s\n",
    (string) (is_scalar(
        $listed = $connection->fetchOne('SELECT COUNT(*) FROM proposal
    WHERE listed = 1'),
    )
        ? $listed
        : ''),
);
