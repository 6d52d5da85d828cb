<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Console;

use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Sourcing\Award\Basket;
use TallBarrel\Core\Sourcing\Award\Bid;
use TallBarrel\Core\Sourcing\Award\Bidder;
use TallBarrel\Core\Sourcing\Award\PartsOfLines;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Core\Sourcing\OrderMinimum;
use TallBarrel\Core\Sourcing\PriceBreaks;

/**
 * A basket as a JSON file; docs/sourcing.md says what may stand in it.
 *
 * @phpstan-type Asked array{prices: PriceBreaks, content: float, minimum: float, rate: float, extra: float, kg: float}
 */
final readonly class AwardFile implements PartsOfLines
{
    /**
     * @param float|null                               $handling of one order line more, home currency; null where no
     *      line is to be split
     * @param array<string, float>                     $units    by line
     * @param array<string, array<string, Asked>>      $asked    by line and supplier
     */
    private function __construct(
        public Basket $basket,
        public ?float $handling,
        private array $units,
        private array $asked,
    ) {
    }

    /** @throws InvalidValue naming the place and the value */
    public static function read(string $json): self
    {
        $data = json_decode($json, true);
        if (!is_array($data)) {
            throw InvalidValue::because('This is not JSON: '.json_last_error_msg().'.');
        }
        $bidders = [];
        foreach (self::table($data, 'suppliers', 'the file') as $name => $supplier) {
            $at = sprintf('supplier “%s”', $name);
            $minimum = self::table($supplier, 'minimum', $at);
            $bidders[(string) $name] = new Bidder(
                self::freight(self::table($supplier, 'freight', $at), $at),
                OrderMinimum::of(
                    self::number($minimum, 'value', $at),
                    self::number($minimum, 'kg', $at),
                    self::number($minimum, 'packs', $at),
                ),
                self::number($supplier, 'rate', $at) ?? 1.0,
                self::number($supplier, 'order_cost', $at) ?? 0.0,
                1.0,
                self::number($supplier, 'capacity', $at),
            );
        }
        $lines = $units = $asked = [];
        foreach (self::table($data, 'lines', 'the file') as $name => $line) {
            $at = sprintf('line “%s”', $name);
            $quantity = self::number($line, 'quantity', $at) ?? throw InvalidValue::because($at.' has no quantity.');
            $within = self::number($line, 'needed_in_days', $at);
            $lines[(string) $name] = [];
            foreach (self::table($line, 'offers', $at) as $supplier => $offer) {
                $where = sprintf('%s, offer of “%s”', $at, $supplier);
                $bidder =
                    $bidders[(string) $supplier] ??
                    throw InvalidValue::because(sprintf('%s: there is no supplier “%s”.', $at, $supplier));
                $lead = self::number($offer, 'lead_days', $where);
                if (null !== $within && null !== $lead && $lead > $within) {
                    continue;
                }
                $prices = is_array($offer) ? $offer['prices'] ?? null : null;
                if (!is_string($prices) && !is_int($prices) && !is_float($prices)) {
                    throw InvalidValue::because($where.' has no prices; expected "9.30", or "1=9.30 40=8.97".');
                }
                $content = self::number($offer, 'pack', $where) ?? 1.0;
                if ($content <= 0) {
                    throw InvalidValue::because(sprintf('%s: a pack of %g holds nothing.', $where, $content));
                }
                $duty = self::number($offer, 'duty_percent', $where) ?? 0.0;
                $asked[(string) $name][(string) $supplier] = $terms = [
                    'prices' => PriceBreaks::read((string) $prices),
                    'content' => $content,
                    'minimum' => self::number($offer, 'minimum', $where) ?? 0.0,
                    'rate' => $bidder->homeForOne * (1 + $duty / 100),
                    'extra' => self::number($offer, 'extra', $where) ?? 0.0,
                    'kg' => self::number($line, 'kg', $at) ?? 0.0,
                ];
                $lines[(string) $name][(string) $supplier] = self::bid($terms, $quantity);
            }
            $units[(string) $name] = $quantity;
        }

        return new self(
            new Basket($lines, $bidders),
            true === ($data['split'] ?? false) ? self::number($data, 'handling', 'the file') ?? 0.0 : null,
            $units,
            $asked,
        );
    }

    /** @param Asked $asked */
    private static function bid(array $asked, float $quantity): Bid
    {
        $packs = max(ceil(round($quantity / $asked['content'], 9)), $asked['minimum']);
        $value = $asked['prices']->costOf((string) $packs)->toFloat();

        return new Bid(
            $value * $asked['rate'] + $asked['extra'],
            $value,
            $packs * $asked['content'] * $asked['kg'],
            $packs,
        );
    }

    public function units(int|string $line): float
    {
        return $this->units[$line] ?? 0.0;
    }

    public function part(int|string $line, int|string $supplier, float $units): ?Bid
    {
        $asked = $this->asked[$line][$supplier] ?? null;

        return null === $asked || $units <= 0 ? null : self::bid($asked, $units);
    }

    public function steps(int|string $line, int|string $supplier): array
    {
        $asked = $this->asked[$line][$supplier] ?? null;
        if (null === $asked) {
            return [];
        }
        $steps = array_map(
            static fn (array $step): float => $step['from']->toFloat() * $asked['content'],
            $asked['prices']->byPacks(),
        );
        $all = $this->units($line);
        $steps[] = floor($all / $asked['content']) * $asked['content'];

        return array_values(array_filter($steps, static fn (float $step): bool => $step > 0 && $step < $all));
    }

    /** @param array<mixed> $freight */
    private static function freight(array $freight, string $at): FreightTariff
    {
        $free = self::number($freight, 'free_from', $at);
        $steps = $freight['by_weight'] ?? null;
        if (is_string($steps)) {
            return FreightTariff::readSteps($steps, $free);
        }
        $pallet = self::number($freight, 'pallet', $at);
        if (null !== $pallet) {
            return FreightTariff::byPallet($pallet, self::number($freight, 'pallet_kg', $at) ?? 0.0, $free);
        }
        $flat = self::number($freight, 'flat', $at);

        return null === $flat ? FreightTariff::none() : FreightTariff::flat($flat, $free);
    }

    /** @return array<mixed> */
    private static function table(mixed $data, string $key, string $at): array
    {
        $value = is_array($data)
            ? $data[$key] ?? []
            : throw InvalidValue::because(sprintf('%s is not an object.', ucfirst($at)));

        return is_array($value)
            ? $value
            : throw InvalidValue::because(sprintf('“%s” in %s is not an object.', $key, $at));
    }

    private static function number(mixed $data, string $key, string $at): ?float
    {
        $value = is_array($data) ? $data[$key] ?? null : null;
        if (null === $value) {
            return null;
        }
        if ((!is_int($value) && !is_float($value)) || $value < 0) {
            throw InvalidValue::because(
                sprintf('“%s” in %s is %s; expected a number of 0 or more.', $key, $at, (string) json_encode($value)),
            );
        }

        return (float) $value;
    }
}
