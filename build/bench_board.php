<?php

declare(strict_types=1);

/* The board over the proposals of the large shop: its first rows, and the answer to a changed quantity. */

require __DIR__.'/BenchClient.php';

$client = new BenchClient($argv[1] ?? exit("Usage: bin/bench\n"));
[$page] = $client->ask('/reorder');
preg_match_all('/id="quantity-(\d+)"/', $page, $ids) || exit("No rows on the board.\n");
preg_match('/([\d,]+) items, /', $page, $items);
$median = static function (callable $once, int $times): array {
    $all = array_map(static fn (): float => $once(), range(1, $times));
    sort($all);

    return [$all[(int) (count($all) * 0.5)], $all[(int) (count($all) * 0.95)]];
};
$n = 0;
[$first, $first95] = $median(static fn (): float => $client->ask('/reorder')[1], 30);
[$changed, $changed95] = $median(static function () use ($client, $ids, &$n): float {
    $id = $ids[1][$n++ % count($ids[1])];

    return $client->ask(
        '/reorder/'.$id,
        ['quantity' => [$id => (string) (3 + $n)]],
        ['X-CSRF-Token: '.$client->token, 'HX-Request: true', 'HX-Trigger-Name: quantity['.$id.']'],
    )[1];
}, 40);
printf(
    "\nReorder with %s proposals listed: first rows p50 %.0f ms, p95 %.0f ms; a changed quantity p50 %.0f ms, p95 ".
        "%.0f ms\n",
    $items[1] ?? '?',
    $first,
    $first95,
    $changed,
    $changed95,
);
