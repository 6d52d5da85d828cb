<?php

declare(strict_types=1);

/*
 * Forecasting against R on the same series, one core each: weekly series (period 52, 156 weeks) against forecast::stlf,
 * monthly ones (60 months) against forecast::ets, everything the contest does included. Needs R with its forecast
 * package.
 */

use TallBarrel\Core\Demand\Contest;

require dirname(__DIR__).'/vendor/autoload.php';

mt_srand(20261123);
$noise = static fn (): float => (mt_rand() + mt_rand() + mt_rand()) / mt_getrandmax() - 1.5;
$weekly = $monthly = [];
for ($i = 0; $i < 40; ++$i) {
    $base = mt_rand(5, 80);
    $weekly[] = array_map(
        static fn (int $w): float => max(
            0.0,
            round($base * exp(0.5 * sin((2 * M_PI * $w) / 52)) + sqrt($base) * 1.5 * $noise()),
        ),
        range(0, 155),
    );
}
for ($i = 0; $i < 10; ++$i) {
    $monthly[] = array_map(
        static fn (int $m): float => round(100 + 0.5 * $m + 25 * sin((2 * M_PI * $m) / 12) + 12 * $noise(), 1),
        range(0, 59),
    );
}
$time = static function (array $series, int $period, int $horizon): float {
    $start = hrtime(true);
    foreach ($series as $one) {
        Contest::over($one, $period, $horizon);
    }

    return (hrtime(true) - $start) / 1e9 / count($series);
};
$time(array_slice($weekly, 0, 3), 52, 6);
[$ourWeekly, $ourMonthly] = [$time($weekly, 52, 6), $time($monthly, 12, 12)];
$file = (string) tempnam(sys_get_temp_dir(), 'bench');
file_put_contents(
    $file,
    implode("\n", array_map(static fn (array $one): string => implode(',', $one), [...$weekly, ...$monthly])),
);
$output = (string) shell_exec(
    'Rscript '.escapeshellarg(__DIR__.'/bench_forecast.R').' '.escapeshellarg($file).' 2>/dev/null',
);
unlink($file);
printf(
    "\nForecasting, one core: weekly series %.1f ms each, monthly %.1f ms each\n",
    1000 * $ourWeekly,
    1000 * $ourMonthly,
);
if (1 === preg_match('/^([\d.]+) ([\d.]+)/', $output, $found)) {
    printf(
        '  against R: %.1f times as many weekly series a second as stlf (%.0f ms), %.0f times as many monthly '.
            "ones as ets (%.0f ms)\n",
        (float) $found[1] / $ourWeekly,
        1000 * (float) $found[1],
        (float) $found[2] / $ourMonthly,
        1000 * (float) $found[2],
    );
} else {
    echo "  R with its forecast package is not here; install r-cran-forecast to compare\n";
}
