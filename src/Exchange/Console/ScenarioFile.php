<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Console;

use TallBarrel\Core\Demand\Distribution\Counts;
use TallBarrel\Core\Demand\Distribution\Distribution;
use TallBarrel\Core\Demand\Distribution\Gamma;
use TallBarrel\Core\Demand\Distribution\Normal;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Replenish\ServiceTarget;

/** What is to be simulated, from a JSON file; docs/planning.md describes it. */
final readonly class ScenarioFile
{
    public const POLICIES = ['s-S', 's-Q', 'order-up-to', 'best'];
    private const KNOWN = [
        'demand',
        'lead_time',
        'costs',
        'policy',
        'review',
        'periods',
        'seed',
        'shortages',
        'warm_up',
        'start_stock',
    ];
    private const MOST_PERIODS = 2000000;

    /**
     * @param list<float>|null           $series       demand period by period, null where it is drawn
     * @param Distribution               $demand       of one period
     * @param non-empty-array<int, float> $leadTimes    probability by periods
     * @param array{order: float, holding: float, shortage: float} $costs
     * @param array<string, float>       $figures      of the policy
     */
    private function __construct(
        public ?array $series,
        public Distribution $demand,
        public array $leadTimes,
        public array $costs,
        public string $policy,
        public array $figures,
        public ?ServiceTarget $service,
        public int $review,
        public int $periods,
        public int $seed,
        public bool $backorders,
        public int $warmUp,
        public ?float $startStock,
    ) {
    }

    /** @throws InvalidValue naming the field and its value */
    public static function read(string $path): self
    {
        $data = JsonFile::read($path, '{"demand": …, "policy": …}');
        foreach (array_keys($data) as $key) {
            if (!in_array($key, self::KNOWN, true)) {
                throw InvalidValue::because(
                    sprintf('“%s” is not known here; expected %s.', $key, implode(', ', self::KNOWN)),
                );
            }
        }
        $series =
            is_array($data['demand'] ?? null) && array_is_list($data['demand'])
                ? self::numbers($data['demand'], 'demand')
                : null;
        $demand = null !== $series ? self::seen($series) : self::distribution($data['demand'] ?? null);
        $costs = is_array($data['costs'] ?? null) ? $data['costs'] : [];
        $policy = $data['policy'] ?? null;
        $policy = is_string($policy) ? ['type' => $policy] : $policy;
        if (!is_array($policy) || !in_array($policy['type'] ?? null, self::POLICIES, true)) {
            throw InvalidValue::because(
                sprintf(
                    '“policy.type” is %s; expected one of %s.',
                    (string) json_encode(is_array($policy) ? $policy['type'] ?? null : $policy),
                    implode(', ', self::POLICIES),
                ),
            );
        }
        $figures = [];
        foreach (['s', 'S', 'Q'] as $name) {
            if (isset($policy[$name])) {
                $figures[$name] = self::number($policy, $name, 'policy', -1e9);
            }
        }
        $service = null;
        if (isset($policy['service'])) {
            if (!is_array($policy['service']) || 1 !== count($policy['service'])) {
                throw InvalidValue::because(
                    sprintf(
                        '“policy.service” is %s; expected {"fill": 0.95} or {"cycle": 0.95}.',
                        (string) json_encode($policy['service']),
                    ),
                );
            }
            $kind = (string) array_key_first($policy['service']);
            $service = ServiceTarget::of($kind, self::number($policy['service'], $kind, 'policy.service'));
        }
        $type = $policy['type'];
        $needs = match (true) {
            'best' === $type => [],
            'order-up-to' === $type => null === $service ? ['S'] : [],
            's-Q' === $type => null === $service ? ['s', 'Q'] : ['Q'],
            default => null === $service ? ['s', 'S'] : ['Q'],
        };
        foreach ($needs as $name) {
            if (!isset($figures[$name])) {
                throw InvalidValue::because(
                    sprintf(
                        '“policy.%s” is missing; “%s”%s needs it.',
                        $name,
                        $type,
                        null === $service ? '' : ' with a service level',
                    ),
                );
            }
        }
        $leadTimes = self::leadTimes($data['lead_time'] ?? 0);
        $shortages = $data['shortages'] ?? 'backorder';
        if (!in_array($shortages, ['backorder', 'lost'], true)) {
            throw InvalidValue::because(
                sprintf('“shortages” is %s; expected backorder or lost.', (string) json_encode($shortages)),
            );
        }
        $periods =
            null === $series
                ? self::whole($data, 'periods', 10000, 1, self::MOST_PERIODS)
                : self::whole($data, 'periods', count($series), 1, count($series));
        $start = $data['start_stock'] ?? null;

        return new self(
            $series,
            $demand,
            $leadTimes,
            [
                'order' => self::number($costs, 'order', 'costs', 0.0, 0.0),
                'holding' => self::number($costs, 'holding', 'costs', 0.0, 0.0),
                'shortage' => self::number($costs, 'shortage', 'costs', 0.0, 0.0),
            ],
            $type,
            $figures,
            $service,
            self::whole($data, 'review', 1, 1, 365),
            $periods,
            self::whole($data, 'seed', 1, 0, \PHP_INT_MAX),
            'backorder' === $shortages,
            self::whole($data, 'warm_up', null === $series ? min(1000, $periods) : 0, 0, self::MOST_PERIODS),
            null === $start ? null : self::number($data, 'start_stock', '', 0.0),
        );
    }

    private static function distribution(mixed $data): Distribution
    {
        if (!is_array($data) || !is_string($data['distribution'] ?? null)) {
            throw InvalidValue::because(
                sprintf(
                    '“demand” is %s; expected a list of numbers or {"distribution": "poisson", "mean": 10}.',
                    (string) json_encode($data),
                ),
            );
        }
        $figure = static fn (string $name, float $least = 1e-9): float => self::number($data, $name, 'demand', $least);

        return match ($data['distribution']) {
            'poisson' => Counts::poisson($figure('mean')),
            'negative-binomial' => Counts::negativeBinomial($figure('mean'), $figure('variance')),
            'normal' => new Normal($figure('mean'), $figure('deviation', 0.0)),
            'gamma' => new Gamma($figure('mean'), $figure('deviation')),
            'empirical' => self::seen(
                self::numbers(is_array($data['values'] ?? null) ? $data['values'] : [], 'demand.values'),
            ),
            default => throw InvalidValue::because(
                sprintf(
                    '“demand.distribution” is “%s”; expected poisson, negative-binomial, normal, gamma or empirical.',
                    $data['distribution'],
                ),
            ),
        };
    }

    /** @param list<float> $values */
    private static function seen(array $values): Counts
    {
        $often = array_fill(0, (int) max(0.0, ...array_map(round(...), $values)) + 1, 0.0);
        foreach ($values as $value) {
            $often[(int) round($value)] += 1.0;
        }

        return Counts::of(array_values($often));
    }

    /** @return non-empty-array<int, float> */
    private static function leadTimes(mixed $data): array
    {
        if (is_int($data) && $data >= 0 && $data <= 365) {
            return [$data => 1.0];
        }
        if (is_array($data) && 'uniform' === ($data['distribution'] ?? null)) {
            $from = self::whole($data, 'from', 0, 0, 365);
            $to = self::whole($data, 'to', $from, $from, 365);

            return array_fill_keys(range($from, $to), 1.0 / ($to - $from + 1));
        }
        if (is_array($data) && 'poisson' === ($data['distribution'] ?? null)) {
            return Counts::poisson(self::number($data, 'mean', 'lead_time', 0.0))->probabilities;
        }
        $found = [];
        foreach (is_array($data) ? $data : [] as $periods => $probability) {
            if (!is_int($periods) || $periods < 0 || $periods > 365 || !is_numeric($probability) || $probability < 0) {
                throw InvalidValue::because(
                    sprintf(
                        '“lead_time” gives %s the probability %s; expected whole periods with probabilities of 0 or '
                        .'more.',
                        (string) json_encode($periods),
                        (string) json_encode($probability),
                    ),
                );
            }
            $found[$periods] = (float) $probability;
        }
        if ([] === $found || abs(array_sum($found) - 1) > 1e-6) {
            throw InvalidValue::because(
                sprintf(
                    '“lead_time” is %s; expected whole periods such as 2, {"1": 0.5, "3": 0.5} adding up to 1, or '
                    .'{"distribution": "uniform", "from": 1, "to": 3}.',
                    (string) json_encode($data),
                ),
            );
        }
        ksort($found);

        return $found;
    }

    /**
     * @param array<mixed> $values
     *
     * @return list<float>
     */
    private static function numbers(array $values, string $name): array
    {
        $numbers = [];
        foreach (array_values($values) as $i => $value) {
            if ((!is_int($value) && !is_float($value)) || $value < 0 || $value > 1e6) {
                throw InvalidValue::because(
                    sprintf(
                        'Entry %d of “%s” is %s; expected a number from 0 to a million.',
                        $i + 1,
                        $name,
                        (string) json_encode($value),
                    ),
                );
            }
            $numbers[] = (float) $value;
        }

        return [] === $numbers
            ? throw InvalidValue::because(sprintf('“%s” is empty; expected a list of numbers.', $name))
            : $numbers;
    }

    /** @param array<mixed> $data */
    private static function number(
        array $data,
        string $name,
        string $within,
        float $least = 0.0,
        ?float $usual = null,
    ): float {
        $value = $data[$name] ?? $usual;
        if ((!is_int($value) && !is_float($value)) || $value < $least || !is_finite((float) $value)) {
            throw InvalidValue::because(
                sprintf(
                    '“%s” is %s; expected a number%s.',
                    ltrim($within.'.'.$name, '.'),
                    (string) json_encode($value),
                    $least > -1e8 ? ($least > 0 ? ' above 0' : ' of 0 or more') : '',
                ),
            );
        }

        return (float) $value;
    }

    /** @param array<mixed> $data */
    private static function whole(array $data, string $name, int $usual, int $least, int $most): int
    {
        $value = $data[$name] ?? $usual;
        if (!is_int($value) || $value < $least || $value > $most) {
            throw InvalidValue::because(
                sprintf(
                    '“%s” is %s; expected a whole number from %d to %d.',
                    $name,
                    (string) json_encode($value),
                    $least,
                    $most,
                ),
            );
        }

        return $value;
    }
}
