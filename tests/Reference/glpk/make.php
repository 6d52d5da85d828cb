<?php

declare(strict_types=1);

/*
 * Writes drawn baskets as integer programs (CPLEX LP format), has glpsol solve them, and records the optima that keep
 * every minimum and capacity. Needs the Debian package glpk-utils. php tests/Reference/glpk/make.php
 */

use TallBarrel\Core\Sourcing\Award\Basket;
use TallBarrel\Tests\Reference\AwardTest;

require __DIR__.'/../../../vendor/autoload.php';

/** One binary for each bid, and for each supplier and tier of freight; the tier's limits bind where it is chosen. */
function model(Basket $basket): string
{
    $cost = $rows = $binaries = [];
    $most = 1e6;
    foreach ($basket->lines as $line => $bids) {
        $rows[] =
            implode(' + ', array_map(static fn (int|string $s): string => "x_{$line}_{$s}", array_keys($bids))).' = 1';
        foreach ($bids as $s => $bid) {
            $cost[] = sprintf('%.9f x_%s_%s', $bid->cost, $line, $s);
            $binaries[] = "x_{$line}_{$s}";
        }
    }
    foreach ($basket->suppliers as $s => $bidder) {
        $sum = [[], [], []];
        foreach ($basket->lines as $line => $bids) {
            if (isset($bids[$s])) {
                foreach ([$bids[$s]->value, $bids[$s]->kilograms, $bids[$s]->packs] as $r => $use) {
                    $sum[$r][] = sprintf('%.9f x_%s_%s', $use, $line, $s);
                }
            }
        }
        if ([] === $sum[0]) {
            continue;
        }
        $tiers = $bidder->freight->tiers(1000);
        $any = [];
        foreach ($tiers as $t => $tier) {
            $cost[] = sprintf(
                '%.9f y_%s_%d',
                $bidder->orderCost + $tier['cost'] * $bidder->homeForOne * $bidder->freightFactor,
                $s,
                $t,
            );
            $binaries[] = $any[] = "y_{$s}_{$t}";
            if (null !== $tier['valueFrom']) {
                $rows[] = implode(' + ', $sum[0]).sprintf(' - %.9f y_%s_%d >= 0', $tier['valueFrom'], $s, $t);
            }
            if (null !== $tier['kgUpTo']) {
                $rows[] =
                    implode(' + ', $sum[1]).
                    sprintf(' + %.1f y_%s_%d <= %.9f', $most, $s, $t, $most + $tier['kgUpTo']);
            }
        }
        $rows[] = implode(' + ', $any).' <= 1';
        foreach ($basket->lines as $line => $bids) {
            if (isset($bids[$s])) {
                $rows[] = "x_{$line}_{$s} - ".implode(' - ', $any).' <= 0';
            }
        }
        foreach ([$bidder->minimum->value, $bidder->minimum->kilograms, $bidder->minimum->packs] as $r => $least) {
            if (null !== $least) {
                $rows[] =
                    implode(' + ', $sum[$r]).
                    implode('', array_map(static fn (string $y): string => sprintf(' - %.9f %s', $least, $y), $any)).
                    ' >= 0';
            }
        }
        if (null !== $bidder->capacity) {
            $rows[] = implode(' + ', $sum[0]).sprintf(' <= %.9f', $bidder->capacity);
        }
    }

    return "Minimize\n cost: ".
        implode("\n + ", $cost).
        "\nSubject To\n ".
        implode("\n ", $rows).
        "\nBinaries\n ".
        implode("\n ", $binaries).
        "\nEnd\n";
}

/** @return float|null the optimum, null where there is none or it took too long */
function solve(Basket $basket, int $seconds): ?float
{
    $file = tempnam(sys_get_temp_dir(), 'award');
    file_put_contents($file, model($basket));
    exec(
        sprintf(
            'glpsol --lp %s --cuts --tmlim %d -o %s.out 2>&1',
            escapeshellarg((string) $file),
            $seconds,
            escapeshellarg((string) $file),
        ),
    );
    $out = (string) @file_get_contents($file.'.out');

    return str_contains($out, 'INTEGER OPTIMAL') && 1 === preg_match('/cost = ([\d.e+]+)/', $out, $found)
        ? (float) $found[1]
        : null;
}

if (__FILE__ === realpath($argv[0] ?? '')) {
    $optima = [];
    foreach (AwardTest::SIZES as $size => [$lines, $suppliers, $first, $count]) {
        for ($seed = $first; count($optima[$size] ?? []) < $count; ++$seed) {
            $optimum = solve(AwardTest::drawn($seed, $lines, $suppliers), 20);
            if (null !== $optimum) {
                $optima[$size][$seed] = $optimum;
            }
        }
    }
    file_put_contents(__DIR__.'/optima.json', json_encode($optima, \JSON_PRETTY_PRINT)."\n");
}
