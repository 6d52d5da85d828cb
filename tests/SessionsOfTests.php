<?php

declare(strict_types=1);

namespace TallBarrel\Tests;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Session\Storage\SessionStorageFactoryInterface;
use Symfony\Component\HttpFoundation\Session\Storage\SessionStorageInterface;

/** Sessions as they are behind a server; where there is none, made up. */
final readonly class SessionsOfTests implements SessionStorageFactoryInterface
{
    public function __construct(
        private SessionStorageFactoryInterface $madeUp,
        private SessionStorageFactoryInterface $real,
    ) {
    }

    public function createStorage(?Request $request): SessionStorageInterface
    {
        return ('cli' === \PHP_SAPI ? $this->madeUp : $this->real)->createStorage($request);
    }
}
