<?php

declare(strict_types=1);

/*
 * A price list of 50,000 lines with mistakes in some, through the pages: brought and set beside what stands, then
 * applied. Runs in the benchmark's own database, after planning filled it.
 */

use Doctrine\DBAL\Connection;
use TallBarrel\Kernel;

require dirname(__DIR__).'/vendor/autoload.php';
require dirname(__DIR__).'/config/environment.php';
require __DIR__.'/BenchClient.php';

const LINES = 50_000;

$client = new BenchClient($argv[1] ?? exit("Usage: bin/bench\n"));
$kernel = new Kernel($_SERVER['APP_ENV'], (bool) $_SERVER['APP_DEBUG']);
$kernel->boot();
$connection = $kernel->getContainer()->get('doctrine.dbal.default_connection');
assert($connection instanceof Connection);
$connection->executeStatement(
    "INSERT INTO item (code, name, category, unit, sold, lot_tracked, version)
    SELECT CONCAT('LIST-', seq), CONCAT('Listed ', seq), 'Listed', 'EA', 1, 0, 1 FROM seq_1_to_".LINES,
);
$connection->executeStatement("INSERT INTO offer (supplier_id, item_id, supplier_code, pack_name, pack_content,
    minimum, multiple, split, lead_days, rank, version, usual_charges)
    SELECT (SELECT id FROM supplier WHERE code = 'VETRASOL'), id, CONCAT('V', code), 'case', 12, 1, 1, 0, 7, 2, 1, '[]'
    FROM item WHERE code LIKE 'LIST-%'");
foreach ([1 => 10, 40 => 9.5, 80 => 9] as $from => $price) {
    $connection->executeStatement("INSERT INTO price_break (offer_id, from_packs, price) SELECT id, $from, $price + id
        % 7 FROM offer WHERE supplier_code LIKE 'VLIST-%'");
}
$file = (string) tempnam(sys_get_temp_dir(), 'list');
$out = fopen($file, 'w') ?: exit("No room for a file.\n");
fputs($out, "code,prices,description\n");
mt_srand(20261123);
for ($n = 1; $n <= LINES; ++$n) {
    $price = mt_rand(900, 1800) / 100;
    fputs(
        $out,
        sprintf(
            "VLIST-%d,%s,Listed %d\n",
            $n,
            0 === $n % 997 ? 'call us' : sprintf('1=%.2F 40=%.2F 80=%.2F', $price, 0.96 * $price, 0.93 * $price),
            $n,
        ),
    );
}
fclose($out);
[$page, $read, $address] = $client->ask('/suppliers/VETRASOL/prices', [
    '_token' => $client->token,
    'from' => gmdate('Y-m-d'),
    'limit' => '500',
    'file' => new CURLFile($file, 'text/csv', 'list.csv'),
]);
$start = microtime(true);
while (str_contains($page, 'being read') && microtime(true) - $start < 120) {
    usleep(200_000);
    [$page] = $client->ask($address);
}
$read += 1000 * (microtime(true) - $start);
(str_contains($page, 'cannot be used') && str_contains($page, 'VLIST-')) || exit("The list was not read.\n");
[$page, $applied] = $client->ask($address, [
    '_token' => $client->token,
    'do' => 'apply',
    'from' => gmdate('Y-m-d'),
    'limit' => '500',
]);
$start = microtime(true);
while (str_contains($page, 'being applied') && microtime(true) - $start < 120) {
    usleep(200_000);
    [$page] = $client->ask($address);
}
$applied += 1000 * (microtime(true) - $start);
preg_match('/([\d,]+) lines are applied/', $page, $lines) || exit("The list was not applied.\n");
printf(
    "\nA price list of %s lines, %d of them wrong, against as many offers of three prices: set beside what stands ".
        "in %.1f s, %s applied in %.1f s\n",
    number_format(LINES),
    intdiv(LINES, 997),
    $read / 1000,
    $lines[1],
    $applied / 1000,
);
unlink($file);
