<?php

declare(strict_types=1);

require dirname(__DIR__).'/vendor/autoload.php';
putenv('TALLBARREL_INSTANCE=test');
require dirname(__DIR__).'/config/environment.php';
$_SERVER['APP_ENV'] = $_ENV['APP_ENV'] = 'test';
$_SERVER['APP_DEBUG'] = $_ENV['APP_DEBUG'] = false;
