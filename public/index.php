<?php

declare(strict_types=1);

use TallBarrel\Kernel;

require_once dirname(__DIR__).'/vendor/autoload_runtime.php';
require_once dirname(__DIR__).'/config/environment.php';

return static function (): Kernel {
    /** @var array{APP_ENV: string, APP_DEBUG: bool|string} $_SERVER */
    return new Kernel($_SERVER['APP_ENV'], (bool) $_SERVER['APP_DEBUG']);
};
