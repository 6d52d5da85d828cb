<?php

declare(strict_types=1);

/*
 * The forecasts of 150 drawn histories, one a line; for CompiledForecastTest, which runs it compiled and not. With
 * "alarms" most of them while one signal comes after the other, as a worker's alarm does now and then.
 */

use Random\Engine\Mt19937;
use Random\Randomizer;
use TallBarrel\Core\Demand\Forecaster;
use TallBarrel\Core\Demand\WeeklyHistory;

require dirname(__DIR__, 3).'/vendor/autoload.php';

$jit = (opcache_get_status(false) ?: [])['jit'] ?? [];
echo is_array($jit) && true === ($jit['on'] ?? null) ? 'compiled' : 'not compiled', "\n";
$drawn = new Randomizer(new Mt19937(7));
$forecaster = new Forecaster();
$came = 0;
$rings = null;
for ($i = 0; $i < 150; ++$i) {
    if (30 === $i && 'alarms' === ($argv[1] ?? '')) {
        pcntl_async_signals(true);
        pcntl_signal(\SIGUSR1, static function () use (&$came): void {
            ++$came;
        });
        $rings = proc_open(
            ['sh', '-c', sprintf('while kill -USR1 %d; do :; done', (int) getmypid())],
            [2 => ['file', '/dev/null', 'w']],
            $pipes,
        );
    }
    $mean = $drawn->getInt(1, 60) / 1.5;
    $sold = $out = [];
    for ($week = 0; $week < 116; ++$week) {
        $season = 1 + 0.5 * sin((2 * \M_PI * $week) / 52) * ($i % 3);
        $nothing = 0 === $i % 4 && $drawn->getInt(0, 9) < 7;
        $sold[] = $nothing ? 0.0 : round(max(0.0, $mean * $season * (0.5 + $drawn->getInt(0, 1000) / 1000)));
        $out[] = 0 === $i % 11 && 0 === $drawn->getInt(0, 20) ? 7 : 0;
    }
    $forecast = $forecaster->forecast(WeeklyHistory::of($sold, $out), 1 + $i % 9);
    echo json_encode($forecast->toArray(), \JSON_THROW_ON_ERROR), "\n";
}
if (is_resource($rings)) {
    proc_terminate($rings, \SIGKILL);
    echo $came, "\n";
}
