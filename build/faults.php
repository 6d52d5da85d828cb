<?php

declare(strict_types=1);

/*
 * Breaks a running instance again and again, by kill -9, while people work at it, starts it anew where it does not come
 * back by itself, and counts at the end what was lost, doubled, stuck or wrongly told.
 *   php build/faults.php ADDRESS KILLS INSTANCE [workers]      only those that come back by themselves
 */

[, $base, $kills, $instance] = $argv;
$kills = (int) $kills;
$isGentle = 'workers' === ($argv[4] ?? '');
$root = dirname(__DIR__);
$home = $root.'/var/'.$instance;
$run = $home.'/run';
$folder = sys_get_temp_dir().'/tallbarrel-faults-'.getmypid();
mkdir($folder);
mt_srand(20261126);

$clients = [];
for ($n = 1; $n <= 5; ++$n) {
    $clients[] = proc_open(
        ['php', __DIR__.'/FaultsClient.php', $base, $folder.'/stop', $folder.'/told-'.$n, (string) $n],
        [1 => ['file', '/dev/null', 'w'], 2 => ['file', $folder.'/errors', 'a']],
        $pipes,
    );
}

/** @return list<int> */
function processes(string $pattern): array
{
    exec('pgrep -f '.escapeshellarg($pattern), $found);

    return array_values(array_diff(array_map(intval(...), $found), [getmypid()]));
}

$killed = $starts = $failed = [];
$slowest = 0.0;
for ($kill = 1; $kill <= $kills; ++$kill) {
    usleep(mt_rand(100_000, 900_000));
    $what = $isGentle
        ? ['web worker', 'worker'][mt_rand(0, 1)]
        : ['database', 'web', 'web worker', 'web worker', 'web worker', 'web worker', 'worker', 'worker', 'worker',
            'server', 'supervisor'][mt_rand(0, 10)];
    $pids = match ($what) {
        'database' => [(int) @file_get_contents($run.'/mariadb.pid')],
        'web' => [(int) @file_get_contents($run.'/fpm.pid')],
        'server' => [(int) @file_get_contents($run.'/nginx.pid')],
        'supervisor' => [(int) @file_get_contents($run.'/supervisord.pid')],
        'worker' => processes($root.'/bin/console messenger:consume'),
        default => array_map(intval(...), explode("\n", trim((string) shell_exec(
            'pgrep -P '.(int) @file_get_contents($run.'/fpm.pid').' php-fpm',
        )))),
    };
    if ('worker' === $what) {
        $pids = array_values(array_filter($pids, static fn (int $pid): bool => str_contains(
            (string) @file_get_contents("/proc/$pid/environ"),
            'TALLBARREL_INSTANCE='.$instance,
        )));
    }
    if ([] === $pids || 0 === $pids[0]) {
        continue;
    }
    posix_kill($pids[mt_rand(0, count($pids) - 1)], \SIGKILL);
    $killed[$what] = ($killed[$what] ?? 0) + 1;
    if (!in_array($what, ['worker', 'web worker'], true)) {
        $begun = microtime(true);
        exec(escapeshellarg($root.'/bin/start').' > '.escapeshellarg($folder.'/start').' 2>&1', $nothing, $code);
        $slowest = max($slowest, microtime(true) - $begun);
        $starts[] = $what;
        if (0 !== $code) {
            $failed[] = $what.': '.trim((string) shell_exec('tail -n 3 '.escapeshellarg($folder.'/start')));
            exec(escapeshellarg($root.'/bin/start').' > /dev/null 2>&1');
        }
    }
    if (0 === $kill % 50) {
        fprintf(\STDERR, "%d kills\n", $kill);
    }
}
touch($folder.'/stop');
foreach ($clients as $client) {
    proc_close($client);
}
$url = parse_url((string) preg_replace('/^DATABASE_URL=/', '', (string) current(preg_grep(
    '/^DATABASE_URL=/',
    file($home.'/environment', \FILE_IGNORE_NEW_LINES) ?: [],
) ?: [])));
$database = new PDO(
    sprintf('mysql:host=%s;port=%d;dbname=tallbarrel', $url['host'], $url['port']),
    $url['user'],
    $url['pass'],
);
$count = static function (string $query, string $value) use ($database): int {
    $ask = $database->prepare($query);
    $ask->execute([$value]);

    return (int) $ask->fetchColumn();
};
// What is queued is handled, and what broke off is taken up again or closed.
for ($second = 0; $second < 75; ++$second) {
    $waits = $count("SELECT COUNT(*) FROM queued_message WHERE queue_name <> 'failed' AND 1 = ?", '1');
    $runs = $count("SELECT COUNT(*) FROM planning_run WHERE state = 'running' AND 1 = ?", '1');
    if (0 === $waits + $runs) {
        break;
    }
    sleep(1);
}
$queries = [
    'wish' => ['SELECT COUNT(*) FROM requisition WHERE words = ?', 'wish %s'],
    'delivery' => ['SELECT COUNT(*) FROM delivery WHERE note_number = ?', 'DN-%s'],
    'book' => [
        'SELECT COUNT(*) FROM receipt r JOIN delivery d ON d.id = r.delivery_id WHERE d.note_number = ?',
        'DN-%s',
    ],
    'send' => ['SELECT COUNT(*) FROM purchase_order WHERE number = ? AND sent_at IS NOT NULL', '%s'],
];
$told = [];
foreach (glob($folder.'/told-*') ?: [] as $file) {
    foreach (file($file) ?: [] as $line) {
        $told[] = json_decode($line, true);
    }
}
$acts = $lost = $doubled = $wrong = $refused = [];
$last = [];
foreach ($told as $one) {
    $acts[$one['act']] = ($acts[$one['act']] ?? 0) + (in_array($one['said'], ['done', 'before'], true) ? 1 : 0);
    $last[$one['act'].' '.$one['mark']][] = $one;
    if ('refused' === $one['said']) {
        $refused[] = $one['act'].' '.$one['mark'].' '.$one['status'].' '.$one['words'];
    }
}
foreach ($last as $what => $all) {
    [$act, $mark] = [$all[0]['act'], $all[0]['mark']];
    if (!isset($queries[$act])) {
        continue;
    }
    $there = $count($queries[$act][0], sprintf($queries[$act][1], $mark));
    $said = end($all)['said'];
    if ('done' === $said && 0 === $there) {
        $lost[] = $what;
    }
    if ($there > 1) {
        $doubled[] = $what;
    }
    if (in_array($said, ['not', 'refused', 'gave up'], true) && $there > 0) {
        $wrong[] = $what.' '.json_encode($all);
    }
}
$letters = [];
foreach (glob($home.'/mail/*.eml') ?: [] as $file) {
    if (1 === preg_match('/^Subject: .*(PO-\d+)/m', (string) file_get_contents($file), $found)) {
        $letters[$found[1]] = ($letters[$found[1]] ?? 0) + 1;
    }
}
foreach ($database->query("SELECT number, sent_at IS NOT NULL sent FROM purchase_order o JOIN supplier s
    ON s.id = o.supplier_id WHERE s.code = 'LUMEN' AND o.id > (SELECT MIN(id) + 40 FROM purchase_order)") as $row) {
    $many = $letters[$row['number']] ?? 0;
    if ($many > 1) {
        $doubled[] = 'letter of '.$row['number'];
    }
    if (0 === (int) $row['sent'] && $many > 0) {
        $wrong[] = 'letter of '.$row['number'].', which was not sent';
    }
}
foreach ($last as $all) {
    $isSent = 'send' === $all[0]['act'] && 'done' === end($all)['said'];
    if ($isSent && 0 === ($letters[$all[0]['mark']] ?? 0)) {
        $lost[] = 'letter of '.$all[0]['mark'];
    }
}
$stuck = [];
foreach ([
    'calculations' => "SELECT COUNT(*) FROM planning_run WHERE state = 'running' AND 1 = ?",
    'files' => "SELECT COUNT(*) FROM import_run WHERE state = 'applying' AND 1 = ?",
    'pieces of work' => "SELECT COUNT(*) FROM queued_message WHERE queue_name <> 'failed' AND 1 = ?",
    'pieces of work that were given up' => "SELECT COUNT(*) FROM queued_message WHERE queue_name = 'failed' AND 1 = ?",
] as $what => $query) {
    if ($count($query, '1') > 0) {
        $stuck[] = $count($query, '1').' '.$what;
    }
}
exec('php '.escapeshellarg($root.'/bin/console').' stock:verify 2>&1', $proof, $proven);
exec('php '.escapeshellarg($root.'/bin/console').' audit:verify 2>&1', $chain, $chained);

printf("%d kills: %s\n", array_sum($killed), implode(', ', array_map(
    static fn (string $what, int $many): string => "$many $what",
    array_keys($killed),
    $killed,
)));
printf("bin/start %d times, the slowest %.1f s; failed %d\n", count($starts), $slowest, count($failed));
foreach ($failed as $one) {
    printf("  %s\n", $one);
}
printf("Said to be done: %s\n", implode(', ', array_map(
    static fn (string $act, int $many): string => "$many $act",
    array_keys($acts),
    $acts,
)));
$found = [
    'lost' => $lost, 'doubled' => $doubled, 'wrongly told' => $wrong, 'stuck' => $stuck, 'refused' => $refused,
];
foreach ($found as $what => $all) {
    printf("%-14s %d\n", $what, count($all));
    foreach (array_slice($all, 0, 5) as $one) {
        printf("  %s\n", mb_substr($one, 0, 400));
    }
}
$proof[] = sprintf('The ledger %s', 0 === $proven ? 'proves' : 'DOES NOT PROVE');
printf("%s, the chain %s\n", end($proof), 0 === $chained ? 'proves' : 'DOES NOT PROVE');
if (0 !== $proven || 0 !== $chained) {
    echo implode("\n", [...$proof, ...$chain])."\n";
}
// Nobody is in anybody's way: what is refused is refused for no reason.
$bad = count($lost) + count($doubled) + count($wrong) + count($stuck) + count($failed) + count($refused) + $proven
    + $chained;
exit(0 === $bad ? 0 : 1);
