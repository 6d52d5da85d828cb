<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Console;

use TallBarrel\Core\InvalidValue;

/** Sites, what they can spare and need, and the ways between them, from a JSON file; docs/planning.md describes it. */
final readonly class TransportFile
{
    /**
     * @param list<string>                                 $names
     * @param array<int, float>                            $spare  by the site's place among the names
     * @param array<int, float>                            $needed
     * @param array<int, array<int, array{float, float}>>  $ways   what a way costs once, and for each unit
     */
    private function __construct(
        public array $names,
        public array $spare,
        public array $needed,
        public array $ways,
    ) {
    }

    /** @throws InvalidValue naming the field and its value */
    public static function read(string $path): self
    {
        $data = JsonFile::read($path, '{"spare": …, "needed": …, "ways": …}');
        $parts = [];
        foreach (['spare', 'needed', 'ways'] as $part) {
            $parts[$part] = $data[$part] ?? null;
            if (!is_array($parts[$part]) || [] === $parts[$part] || array_is_list($parts[$part])) {
                throw InvalidValue::because(
                    sprintf('“%s” is %s; expected an object by site.', $part, (string) json_encode($parts[$part])),
                );
            }
        }
        $names = array_values(
            array_unique(array_map(strval(...), array_keys($parts['spare'] + $parts['needed']))),
        );
        $at = array_flip($names);
        $spare = $needed = $ways = [];
        foreach ($parts['spare'] as $site => $units) {
            $spare[$at[$site]] = self::number($units, 'spare.'.$site);
        }
        foreach ($parts['needed'] as $site => $units) {
            $needed[$at[$site]] = self::number($units, 'needed.'.$site);
        }
        foreach ($parts['ways'] as $from => $to) {
            foreach (is_array($to) ? $to : [] as $site => $cost) {
                $name = sprintf('ways.%s.%s', $from, $site);
                if (!isset($at[$from], $at[$site])) {
                    throw InvalidValue::because(
                        sprintf('“%s” names a site that neither spares nor needs anything.', $name),
                    );
                }
                $ways[$at[$from]][$at[$site]] = is_array($cost)
                    ? [self::number($cost['once'] ?? 0, $name.'.once'), self::number($cost['each'] ?? 0, $name.'.each')]
                    : [0.0, self::number($cost, $name)];
            }
        }

        return new self($names, $spare, $needed, $ways);
    }

    private static function number(mixed $value, string $name): float
    {
        if ((!is_int($value) && !is_float($value)) || $value < 0 || $value > 1e9) {
            throw InvalidValue::because(
                sprintf('“%s” is %s; expected a number of 0 or more.', $name, (string) json_encode($value)),
            );
        }

        return (float) $value;
    }
}
