<?php

declare(strict_types=1);

/*
 * Page times as ratios to a static file served by the same nginx, at one and at eight clients; planning and import
 * throughput. Every figure comes from this one run: only the ratios mean something on another machine.
 */

$base = $argv[1] ?? exit("Usage: bin/bench\n");

function handle(string $url, string $jar): CurlHandle
{
    $curl = curl_init($url);
    curl_setopt_array($curl, [
        \CURLOPT_RETURNTRANSFER => true,
        \CURLOPT_COOKIEFILE => $jar,
        \CURLOPT_COOKIEJAR => $jar,
        \CURLOPT_FOLLOWLOCATION => true,
        \CURLOPT_ENCODING => '',
        \CURLOPT_HTTPHEADER => ['Sec-Fetch-Site: same-origin'],
    ]);

    return $curl;
}

/**
 * @param list<string> $jars one signed-in session for each client
 *
 * @return list<float> seconds, sorted
 */
function times(string $url, array $jars, int $requests): array
{
    $multi = curl_multi_init();
    $times = [];
    $started = 0;
    $begin = static function (string $jar) use (&$started, $requests, $multi, $url): void {
        if ($started < $requests) {
            ++$started;
            $curl = handle($url, $jar);
            curl_setopt($curl, \CURLOPT_PRIVATE, $jar);
            curl_multi_add_handle($multi, $curl);
        }
    };
    array_map($begin, $jars);
    do {
        curl_multi_exec($multi, $running);
        while ($done = curl_multi_info_read($multi)) {
            $code = curl_getinfo($done['handle'], \CURLINFO_RESPONSE_CODE);
            200 === $code || exit("$url answered $code\n");
            $times[] = curl_getinfo($done['handle'], \CURLINFO_TOTAL_TIME);
            curl_multi_remove_handle($multi, $done['handle']);
            $begin((string) curl_getinfo($done['handle'], \CURLINFO_PRIVATE));
            curl_multi_exec($multi, $running);
        }
        curl_multi_select($multi, 0.01);
    } while (count($times) < $requests);
    sort($times);

    return $times;
}

function signIn(string $base): string
{
    $jar = (string) tempnam(sys_get_temp_dir(), 'jar');
    $sign = handle($base.'/sign-in', $jar);
    preg_match('/name="_token" value="([^"]+)"/', (string) curl_exec($sign), $token) || exit("No sign-in page.\n");
    curl_setopt_array($sign, [
        \CURLOPT_POST => true,
        \CURLOPT_POSTFIELDS => http_build_query([
            'email' => 'rowan@larkmoor.example',
            'password' => 'larkmoor-honey',
            '_token' => $token[1],
        ]),
    ]);
    str_contains((string) curl_exec($sign), 'Coming to the dock') || exit("Signing in failed.\n");

    return $jar;
}

$jars = array_map(static fn (): string => signIn($base), range(1, 8));
$manifest = json_decode((string) file_get_contents(__DIR__.'/../public/built/manifest.json'), true);
$pages = [
    'static file' => $manifest['built/app.css'],
    'Today' => '/',
    'Reorder' => '/reorder',
    'Orders' => '/orders',
    'An order' => '/orders/PO-1081',
    'Dock' => '/dock',
    'Stock' => '/stock',
    'Settle' => '/settle',
    'To pay' => '/settle/payments',
    'An item' => '/items/JAR-340R',
    'Compare' => '/compare',
    'Compare an item' => '/compare/items/JAR-370H?units=576',
    'Suppliers' => '/suppliers',
    'Items' => '/items',
];
/** Queries of one request to each page, counted by the database while nobody else asks it. */
function queries(string $base, string $jar, array $pages): void
{
    require_once __DIR__.'/../config/environment.php';
    $url = parse_url((string) $_SERVER['DATABASE_URL']);
    $database = new PDO(sprintf('mysql:host=%s;port=%d', $url['host'], $url['port']), $url['user'], $url['pass']);
    // MariaDB counts what its query cache answers among them.
    $count = static fn (): int => (int) $database->query("SHOW GLOBAL STATUS LIKE 'Com_select'")->fetchColumn(1);
    $most = 0;
    printf("\nQueries a page\n");
    foreach (array_slice($pages, 1) as $name => $path) {
        $once = static function () use ($base, $jar, $path): void {
            curl_exec(handle($base.$path, $jar));
        };
        $once();
        // The workers ask too, now and then: the least of three is the page's own.
        $seen = [];
        for ($i = 0; $i < 3; ++$i) {
            $before = $count();
            $once();
            $seen[] = $count() - $before;
        }
        $most = max($most, min($seen));
        printf("  %-18s %3d%s\n", $name, min($seen), match (true) {
            min($seen) > MOST_QUERIES => '  too many',
            min($seen) > MEANT_QUERIES => '  more than meant',
            default => '',
        });
    }
    $most <= MOST_QUERIES || (print sprintf("FAILED: more than %d queries a page\n", MOST_QUERIES));
}

// Two of them are the session's: its lock, and what stands in it.
const MEANT_QUERIES = 12;
const MOST_QUERIES = 15;
queries($base, $jars[0], $pages);
foreach ([1 => 60, 8 => 160] as $clients => $requests) {
    printf("\n%d client%s%s p50 ms   p95 ms   p50 to static\n", $clients, $clients > 1 ? 's' : ' ', str_repeat(' ', 6));
    $static = null;
    foreach ($pages as $name => $path) {
        $some = array_slice($jars, 0, $clients);
        times($base.$path, $some, 2 * $clients);
        $times = times($base.$path, $some, $requests);
        $p50 = 1000 * $times[(int) (count($times) * 0.5)];
        $p95 = 1000 * $times[(int) (count($times) * 0.95)];
        $static ??= $p50;
        printf("  %-14s %6.1f   %6.1f   %6.1f\n", $name, $p50, $p95, $p50 / $static);
    }
}
array_map(unlink(...), $jars);

$runs = [];
for ($i = 0; $i < 5; ++$i) {
    $start = hrtime(true);
    $output = (string) shell_exec('php '.escapeshellarg(dirname(__DIR__).'/bin/console').' planning:run');
    preg_match('/^(\d+) .* in ([\d.]+) s/', $output, $found) || exit($output);
    $runs[] = (float) $found[2];
}
sort($runs);
printf(
    "\nPlanning: %d items at sites, median of 5 runs %.2f s, %.0f a second, rows read to proposals saved\n",
    $found[1],
    $runs[2],
    $found[1] / $runs[2],
);
