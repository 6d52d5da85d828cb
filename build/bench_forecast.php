<?php

declare(strict_types=1);

/*
 * Forecasting against R on the same series: its own of quarters and months, the last year held back, and drawn ones of
 * eight kinds; forecast::ets (stlf where a period is long) and forecast::auto.arima. Prints the mean absolute scaled
 * error by kind, how often the 80 and 95 % bands held by period, and the time each took. Needs R with its forecast
 * package (Debian package r-cran-forecast).
 *
 *   php build/bench_forecast.php [how many of each kind] [seed]
 */

use TallBarrel\Core\Demand\Cleaning;
use TallBarrel\Core\Demand\Contest;
use TallBarrel\Core\Demand\ErrorScale;
use TallBarrel\Core\Demand\Fan;

require dirname(__DIR__).'/vendor/autoload.php';

if ('' === trim((string) shell_exec('Rscript -e "library(forecast)" 2>/dev/null && command -v Rscript'))) {
    exit("\nForecasting: R with its forecast package is not here; install r-cran-forecast to compare\n");
}
$file = (string) tempnam(sys_get_temp_dir(), 'bench');
shell_exec(sprintf(
    'Rscript %s %s %d %d 2>/dev/null',
    escapeshellarg(__DIR__.'/bench_forecast.R'),
    escapeshellarg($file),
    (int) ($argv[2] ?? 2026),
    (int) ($argv[1] ?? 12),
));
/**
 * @var array{took: list<float>, series: list<array{kind: string, period: int, train: list<float>, test: list<float>,
 *      ets: array{mean: list<float>}, arima: array{mean: list<float>}}>} $data
 */
$data = json_decode((string) file_get_contents($file), true, flags: \JSON_THROW_ON_ERROR);
unlink($file);
$errors = $held = [];
$ours = 0.0;
foreach ($data['series'] as $one) {
    $train = array_map(floatval(...), $one['train']);
    $start = hrtime(true);
    $outcome = Contest::over(Cleaning::ofSeries($train, $one['period']), $one['period'], count($one['test']));
    $quantiles = Fan::of($outcome, [0.025, 0.1, 0.9, 0.975]);
    $ours += (hrtime(true) - $start) / 1e9;
    // Drawn weeks have a season only where the kind says so: the step from one value to the next is their scale.
    $seasonal = str_starts_with($one['kind'], 'R,') || 'season' === $one['kind'];
    $scale = (new ErrorScale($train, $seasonal ? $one['period'] : 1))->meanAbsolute;
    $all = ['ours' => $outcome->means, 'ets' => $one['ets']['mean'], 'arima' => $one['arima']['mean']];
    foreach ($all as $who => $means) {
        $sum = 0.0;
        foreach ($one['test'] as $h => $value) {
            $sum += abs($value - $means[$h]);
        }
        $errors[$one['kind']][$who][] = $errors['mean'][$who][] = $sum / count($one['test']) / $scale;
    }
    foreach ($one['test'] as $h => $value) {
        foreach ([80 => ['0.1', '0.9'], 95 => ['0.025', '0.975']] as $band => [$low, $high]) {
            $held[$one['period']][$band][] = $value >= $quantiles[$low][$h] - 1e-9
                && $value <= $quantiles[$high][$h] + 1e-9;
        }
    }
}
$mean = static fn (array $values): float => array_sum($values) / max(1, count($values));
uksort($errors, static fn (string $a, string $b): int => ('mean' === $a) <=> ('mean' === $b));
echo "\nForecasting: mean absolute scaled error on values held back\n";
printf("  %-14s %7s %7s %11s %18s %5s\n", '', 'ours', 'ets', 'auto.arima', 'ours to the better', 'series');
foreach ($errors as $kind => $by) {
    [$a, $b, $c] = [$mean($by['ours']), $mean($by['ets']), $mean($by['arima'])];
    printf("  %-14s %7.3f %7.3f %11.3f %18.2f %6d\n", $kind, $a, $b, $c, $a / min($b, $c), count($by['ours']));
}
ksort($held);
foreach ($held as $period => $bands) {
    printf(
        "  period %2d: the 80 %% band held %.1f %%, the 95 %% band %.1f %% of %d values\n",
        $period,
        100 * $mean($bands[80]),
        100 * $mean($bands[95]),
        count($bands[80]),
    );
}
$each = $ours / count($data['series']);
printf(
    "  a series takes %.1f ms, one core; ets %.0f times, auto.arima %.0f times as long\n",
    1000 * $each,
    $data['took'][0] / $each,
    $data['took'][1] / $each,
);
