<?php

declare(strict_types=1);

/*
 * Symfony 7.4 calls two functions of PHP 8.5; here they are for an older PHP.
 * Where the complete symfony/polyfill-php85 can be installed, this file and the "replace" of it in composer.json can go.
 */

if (!function_exists('get_error_handler')) {
    function get_error_handler(): ?callable
    {
        $handler = set_error_handler(null);
        restore_error_handler();

        return $handler;
    }
}

if (!function_exists('get_exception_handler')) {
    function get_exception_handler(): ?callable
    {
        $handler = set_exception_handler(null);
        restore_exception_handler();

        return $handler;
    }
}
