<?php

declare(strict_types=1);

/* The board over the proposals of the large shop: its first rows, and the answer to a changed quantity. */

$base = $argv[1] ?? exit("Usage: bin/bench\n");
$jar = (string) tempnam(sys_get_temp_dir(), 'jar');
$ask = static function (string $path, ?array $post = null, array $headers = []) use ($base, $jar): array {
    $curl = curl_init($base.$path);
    curl_setopt_array($curl, [\CURLOPT_RETURNTRANSFER => true, \CURLOPT_COOKIEFILE => $jar, \CURLOPT_COOKIEJAR => $jar, \CURLOPT_FOLLOWLOCATION => true, \CURLOPT_ENCODING => '', \CURLOPT_HTTPHEADER => $headers] + (null === $post ? [] : [\CURLOPT_POST => true, \CURLOPT_POSTFIELDS => http_build_query($post)]));
    $body = (string) curl_exec($curl);

    return [$body, 1000 * curl_getinfo($curl, \CURLINFO_TOTAL_TIME), curl_getinfo($curl, \CURLINFO_RESPONSE_CODE)];
};
preg_match('/name="_token" value="([^"]+)"/', $ask('/sign-in')[0], $token) || exit("No sign-in page.\n");
$ask('/sign-in', ['email' => 'rowan@larkmoor.example', 'password' => 'larkmoor-honey', '_token' => $token[1]]);
[$page, , $code] = $ask('/reorder');
200 === $code || exit("/reorder answered $code\n");
preg_match('/name="csrf-token" content="([^"]+)"/', $page, $token) && preg_match_all('/id="quantity-(\d+)"/', $page, $ids) || exit("No rows on the board.\n");
preg_match('/([\d,]+) items, /', $page, $items);
$median = static function (callable $once, int $times): array {
    $all = array_map(static fn (): float => $once(), range(1, $times));
    sort($all);

    return [$all[(int) (count($all) * .5)], $all[(int) (count($all) * .95)]];
};
$n = 0;
[$first, $first95] = $median(static fn (): float => $ask('/reorder')[1], 30);
[$changed, $changed95] = $median(static function () use ($ask, $ids, $token, &$n): float {
    $id = $ids[1][$n++ % count($ids[1])];
    [$body, $ms, $code] = $ask('/reorder/'.$id, ['quantity' => [$id => (string) (3 + $n)]], ['X-CSRF-Token: '.$token[1], 'HX-Request: true', 'HX-Trigger-Name: quantity['.$id.']']);
    200 === $code || exit("A changed quantity was answered with $code.\n".substr($body, 0, 300));

    return $ms;
}, 40);
printf("\nReorder with %s proposals listed: first rows p50 %.0f ms, p95 %.0f ms; a changed quantity p50 %.0f ms, p95 %.0f ms\n", $items[1] ?? '?', $first, $first95, $changed, $changed95);
unlink($jar);
