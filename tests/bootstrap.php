<?php

declare(strict_types=1);

require dirname(__DIR__).'/vendor/autoload.php';
putenv('TALLBARREL_INSTANCE=test');
require dirname(__DIR__).'/config/environment.php';
// What is queued is done at once, within the transaction the test rolls back.
$_SERVER['QUEUE_DSN'] = $_ENV['QUEUE_DSN'] = 'sync://';
$_SERVER['APP_ENV'] = $_ENV['APP_ENV'] = 'test';
$_SERVER['APP_DEBUG'] = $_ENV['APP_DEBUG'] = false;
