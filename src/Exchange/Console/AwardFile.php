<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Console;

use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Sourcing\Award\Basket;
use TallBarrel\Core\Sourcing\Award\Bid;
use TallBarrel\Core\Sourcing\Award\Bidder;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Core\Sourcing\OrderMinimum;
use TallBarrel\Core\Sourcing\PriceBreaks;

/** A basket as a JSON file; docs/sourcing.md says what may stand in it. */
final readonly class AwardFile
{
    /** @throws InvalidValue naming the place and the value */
    public static function read(string $json): Basket
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
        $lines = [];
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
                $packs = max(ceil(round($quantity / $content, 9)), self::number($offer, 'minimum', $where) ?? 0.0);
                $value = PriceBreaks::read((string) $prices)->costOf((string) $packs)->toFloat();
                $duty = self::number($offer, 'duty_percent', $where) ?? 0.0;
                $lines[(string) $name][(string) $supplier] = new Bid(
                    $value * $bidder->homeForOne * (1 + $duty / 100) + (self::number($offer, 'extra', $where) ?? 0.0),
                    $value,
                    $packs * $content * (self::number($line, 'kg', $at) ?? 0.0),
                    $packs,
                );
            }
        }

        return new Basket($lines, $bidders);
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
