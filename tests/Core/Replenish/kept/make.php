<?php

declare(strict_types=1);

/* Keeps what drawn items come to now, for KeptDecisionsTest; run it where a method was changed on purpose. */

use TallBarrel\Tests\Core\Replenish\KeptDecisionsTest;

require dirname(__DIR__, 4).'/vendor/autoload.php';

$rounded = static function (mixed $one) use (&$rounded): mixed {
    return match (true) {
        is_array($one) => array_map($rounded, $one),
        is_float($one) => (float) sprintf('%.10g', $one),
        default => $one,
    };
};
file_put_contents(KeptDecisionsTest::FILE, json_encode(
    $rounded(['decisions' => KeptDecisionsTest::decisions(), 'levels' => KeptDecisionsTest::levels()]),
    \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE,
)."\n");
