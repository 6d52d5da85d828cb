<?php

declare(strict_types=1);

/*
 * Sharing out drawn baskets of 60 lines among 8 suppliers, against glpsol on the same integer programs where GLPK is
 * installed (Debian package glpk-utils).
 */

use TallBarrel\Tests\Reference\AwardTest;

require dirname(__DIR__).'/vendor/autoload.php';
require dirname(__DIR__).'/tests/Reference/glpk/make.php';

const GLPK_SECONDS = 30;

$glpk = '' !== trim((string) shell_exec('command -v glpsol'));
$ours = $theirs = [];
$proven = 0;
$gaps = [0.0];
for ($seed = 401; $seed <= 410; ++$seed) {
    $basket = AwardTest::drawn($seed, 60, 8);
    $start = hrtime(true);
    $award = $basket->best();
    $ours[] = $seconds = (hrtime(true) - $start) / 1e9;
    $proven += $award->isProvenBest() ? 1 : 0;
    $gaps[] = $award->isProvenBest() ? 0.0 : (100 * $award->gap) / $award->cost();
    if ($glpk) {
        $start = hrtime(true);
        solve($basket, GLPK_SECONDS);
        $theirs[] = (hrtime(true) - $start) / 1e9;
    }
}
sort($ours);
sort($theirs);
printf(
    "\nSharing out 60 lines among 8 suppliers, ten drawn baskets\n  median %.2f s, slowest %.2f s; proven best %d ".
        "of 10, widest gap left %.2f %%\n",
    $ours[5],
    $ours[9],
    $proven,
    max($gaps),
);
if ($glpk) {
    printf(
        "  against GLPK, stopped after %d s: median %.1f times, all ten %.1f times as long as ours; %d of 10 stopped\n",
        GLPK_SECONDS,
        $theirs[5] / $ours[5],
        array_sum($theirs) / array_sum($ours),
        count(array_filter($theirs, static fn (float $one): bool => $one >= GLPK_SECONDS - 1)),
    );
}
