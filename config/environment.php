<?php

declare(strict_types=1);

/*
 * Loads what bin/start or bin/test wrote for an instance of the application: the database's address, the secret.
 * Variables that are set already win.
 */

$_SERVER['TALLBARREL_INSTANCE'] = getenv('TALLBARREL_INSTANCE') ?: 'app';
$written = parse_ini_file(
    dirname(__DIR__).'/var/'.$_SERVER['TALLBARREL_INSTANCE'].'/environment',
    false,
    \INI_SCANNER_RAW,
);
foreach (false === $written ? [] : $written as $name => $value) {
    $_SERVER[$name] = $_ENV[$name] = false !== getenv($name) ? getenv($name) : $value;
}
$_SERVER['APP_ENV'] = getenv('APP_ENV') ?: $_SERVER['APP_ENV'] ?? 'prod';
$_SERVER['APP_DEBUG'] = (bool) (getenv('APP_DEBUG') ?: false);
