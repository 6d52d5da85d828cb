<?php

declare(strict_types=1);

use Symfony\Component\HttpFoundation\Request;
use TallBarrel\Kernel;

require dirname(__DIR__).'/vendor/autoload.php';
require dirname(__DIR__).'/config/environment.php';

/** @var array{APP_ENV: string, APP_DEBUG: bool} $_SERVER */
$kernel = new Kernel($_SERVER['APP_ENV'], $_SERVER['APP_DEBUG']);
$request = Request::createFromGlobals();
$response = $kernel->handle($request);
$response->send();
$kernel->terminate($request, $response);
