<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Attack;

use Symfony\Component\Routing\Route;
use Symfony\Component\Routing\RouterInterface;
use TallBarrel\Tests\Desk\DeskTestCase;

/** Every route by every method: as somebody who is not signed in, without the token, and in every role. */
final class RoutesTest extends DeskTestCase
{
    private const METHODS = ['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE'];
    private const PEOPLE = ['owner' => 'rowan', 'buyer' => 'mara', 'stockroom' => 'tam', 'bookkeeper' => 'iris'];
    /** Those that nobody has to be signed in for. */
    private const OPEN = ['sign_in', 'begin', 'begin_save', 'forgotten', 'forgotten_send', 'password', 'sign_out'];
    /** What ends the run; suppliers who are stood in for answer from the side of a worker. */
    private const LEFT_OUT = ['sign_out', 'sign_in', 'demo_take_away', 'mailbox_answers'];
    private const VALUES = [
        '1', 'PO-1045', 'csv', 'JAR-340R', 'VETRASOL', 'DEPOT', 'A-smooth', 'order', 'sales', '2026-10', '2026-11-20',
    ];

    private const ODD = ['99999999999999999999', '%FF%FE', '%00', '..%2F..%2Fetc', "'", 'A-zzzz', '0', '-1'];

    /** @return array<string, array{Route, string}> with an address of it */
    private function routes(): array
    {
        $router = self::getContainer()->get('router');
        self::assertInstanceOf(RouterInterface::class, $router);
        $routes = [];
        foreach ($router->getRouteCollection()->all() as $name => $route) {
            $values = [];
            foreach ($route->compile()->getPathVariables() as $variable) {
                self::assertIsString($variable);
                $must = $route->getRequirement($variable) ?? '[^/]+';
                foreach ([...self::VALUES, ...explode('|', $must), str_repeat('a', 40)] as $value) {
                    if (1 === preg_match('#^(?:'.$must.')$#', $value)) {
                        $values[$variable] = $value;
                        break;
                    }
                }
                self::assertArrayHasKey($variable, $values, $name.' '.$must);
            }
            $routes[$name] = [$route, $router->generate($name, $values)];
        }
        self::assertGreaterThan(250, count($routes));

        return $routes;
    }

    /** @param array<string, string> $fields */
    private function answer(string $method, string $address, array $fields = []): int
    {
        $level = $this->connection()->getTransactionNestingLevel();
        $this->connection()->beginTransaction();
        try {
            $this->browser->request($method, $address, $fields);

            return $this->browser->getResponse()->getStatusCode();
        } catch (\Throwable $error) {
            self::fail($method.' '.$address.': '.$error->getMessage());
        } finally {
            $this->entities()->clear();
            while ($this->connection()->getTransactionNestingLevel() > $level) {
                $this->connection()->rollBack();
            }
        }
    }

    private function wasAskedToSignIn(): bool
    {
        $where = (string) $this->browser->getResponse()->headers->get('Location');

        return str_starts_with($where, '/sign-in?') || '/sign-in' === $where;
    }

    public function testWhoIsNotSignedInSeesNothingAndChangesNothing(): void
    {
        $this->browser->disableReboot();
        $wrong = [];
        foreach ($this->routes() as $name => [, $address]) {
            if (in_array($name, self::OPEN, true)) {
                continue;
            }
            foreach (self::METHODS as $method) {
                $status = $this->answer($method, $address);
                if (!$this->wasAskedToSignIn() && !in_array($status, [403, 404, 405, 429], true)) {
                    $wrong[] = $method.' '.$address.' '.$status;
                }
            }
        }
        self::assertSame([], $wrong);
    }

    public function testWithoutTheTokenNothingIsChangedAndNoOtherMethodServes(): void
    {
        $this->browser->disableReboot();
        $this->as('rowan');
        $wrong = [];
        foreach ($this->routes() as $name => [$route, $address]) {
            if (in_array($name, [...self::OPEN, ...self::LEFT_OUT], true)) {
                continue;
            }
            $isByLink = true === $route->getDefault('_by_link');
            foreach (array_diff(self::METHODS, ['GET', 'HEAD']) as $method) {
                $status = $this->answer($method, $address, ['_token' => 'stolen']);
                if (!in_array($status, $isByLink ? [404, 405, 429] : [403, 404, 405], true)) {
                    $wrong[] = $method.' '.$address.' '.$status;
                }
            }
        }
        self::assertSame([], $wrong);
    }

    /** What each role may, as it was decided: who changes a line of who-may.csv says so in a commit. */
    public function testEachRoleMayWhatWasDecided(): void
    {
        $this->browser->disableReboot();
        $may = [];
        foreach (self::PEOPLE as $role => $name) {
            $this->as($name);
            $token = (string) $this->see('/')->filter('meta[name="csrf-token"]')->attr('content');
            foreach ($this->routes() as $name => [$route, $address]) {
                $isOpen = true === $route->getDefault('_by_link') || in_array($name, self::OPEN, true);
                if ($isOpen || in_array($name, self::LEFT_OUT, true)) {
                    continue;
                }
                foreach ($route->getMethods() as $method) {
                    $status = $this->answer($method, $address, 'POST' === $method ? ['_token' => $token] : []);
                    self::assertLessThan(500, $status, $role.' '.$method.' '.$address);
                    self::assertFalse($this->wasAskedToSignIn(), $role.' '.$method.' '.$address);
                    $may[$name.' '.$method][$role] = 403 === $status ? 'no' : 'yes';
                }
            }
        }
        ksort($may);
        $lines = ['route,'.implode(',', array_keys(self::PEOPLE))];
        foreach ($may as $what => $roles) {
            $lines[] = $what.','.implode(',', $roles);
        }
        $decided = explode("\n", trim((string) file_get_contents(__DIR__.'/who-may.csv')));
        self::assertSame([], array_values(array_diff($lines, $decided)), 'is so, and was not decided');
        self::assertSame([], array_values(array_diff($decided, $lines)), 'was decided, and is not so');
    }

    public function testAddressesThatNobodyLinksToAreAnsweredAndNeverAnErrorOfOurs(): void
    {
        $this->browser->disableReboot();
        $this->as('rowan');
        $wrong = [];
        foreach ($this->routes() as $name => [$route, $address]) {
            $methods = $route->getMethods();
            if (!in_array('GET', $methods, true) || [] === $route->compile()->getPathVariables()) {
                continue;
            }
            foreach (self::ODD as $odd) {
                foreach (self::VALUES as $value) {
                    $path = str_replace('/'.$value, '/'.$odd, $address);
                    if ($path === $address) {
                        continue;
                    }
                    $status = $this->answer('GET', $path);
                    if ($status >= 500) {
                        $wrong[] = $name.' '.$path.' '.$status;
                    }
                }
            }
        }
        self::assertSame([], $wrong);
    }
}
