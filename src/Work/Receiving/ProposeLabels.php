<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Gtin;
use TallBarrel\Core\Receiving\Gs1\Elements;
use TallBarrel\Store\Dock\Receipt;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Site\Bin;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Stock\Lots;
use TallBarrel\Store\Stock\Serial;

/** Which labels there are for what came, an item or the bins of a site, and how many of each. */
final readonly class ProposeLabels
{
    /** Labels of one kind at once. */
    public const MOST = 500;
    /** Lots of an item that are proposed. */
    private const LOTS = 100;

    public function __construct(private EntityManagerInterface $entities, private Lots $lots)
    {
    }

    /** @return list<array{Label, int}> for the delivery; for each stock unit, lot by lot, or each serial number */
    public function forReceipt(Receipt $receipt): array
    {
        $delivery = $receipt->delivery;
        $labels = [[
            new Label('receipt', $receipt->number, [
                $delivery->supplier->name(), 'note '.$delivery->noteNumber, $delivery->site->name(),
            ], plain: $receipt->number),
            max(1, $delivery->came()->packages() ?? 1),
        ]];
        foreach ($receipt->lines() as $line) {
            $item = $line->line->item;
            if (null === $item) {
                continue;
            }
            $units = $line->line->pack()->toStockUnits($line->packs);
            if (!$item->hasSerials()) {
                $labels[] = [$this->ofLot($item, $line->lot), self::many($units)];
                continue;
            }
            foreach ($this->entities->getRepository(Serial::class)->findBy(['cameWith' => $line]) as $serial) {
                $labels[] = [self::one('s'.$serial->id, $item, '', null, $serial->number), 1];
            }
        }

        return $labels;
    }

    /** @return list<array{Label, int}> its own, its packs, and the lots that stand somewhere */
    public function forItem(Item $item): array
    {
        $labels = [[self::plain('item', $item->name(), [$item->code], $item->gtin(), $item->code), 1]];
        foreach ($item->packs() as $pack) {
            if (null !== $pack->gtin()) {
                $words = sprintf('%s of %s', $pack->name(), $pack->quantity()->strippedOfTrailingZeros());
                $labels[] = [self::plain('p'.$pack->id, $item->name(), [$item->code, $words], $pack->gtin(), ''), 0];
            }
        }
        foreach ($this->lots->standing($item->id, self::LOTS) as $lot => $units) {
            $labels[] = [$this->ofLot($item, (string) $lot), 0];
        }

        return $labels;
    }

    /** @return list<array{Label, int}> */
    public function forBins(Site $site): array
    {
        return array_map(
            static fn (Bin $bin): array => [
                new Label(
                    'b'.$bin->id,
                    $bin->code,
                    [$site->name()],
                    plain: self::isPlain($bin->code) ? $bin->code : '',
                ),
                1,
            ],
            array_values($site->bins()),
        );
    }

    private function ofLot(Item $item, string $lot): Label
    {
        if ('' === $lot) {
            return self::plain('i'.$item->id, $item->name(), [$item->code], $item->gtin(), $item->code);
        }
        $end = $this->lots->endOf($item->id, $lot);

        return self::one('i'.$item->id.'-'.$lot, $item, $lot, null === $end ? null : new \DateTimeImmutable($end), '');
    }

    private static function one(
        string $key,
        Item $item,
        string $lot,
        ?\DateTimeImmutable $useBy,
        string $serial,
    ): Label {
        $lines = [$item->code];
        foreach (['lot ' => $lot, 'use by ' => $useBy?->format('j M Y') ?? '', 'no. ' => $serial] as $word => $value) {
            if ('' !== $value) {
                $lines[] = $word.$value;
            }
        }
        try {
            $gs1 = Elements::of($item->gtin(), $item->code, $lot, $useBy, $serial);
        } catch (InvalidValue) {
            // A lot or code with letters that no such symbol has is read by people alone.
            $gs1 = null;
        }

        return new Label($key, $item->name(), $lines, $gs1);
    }

    /** @param list<string> $lines */
    private static function plain(string $key, string $title, array $lines, ?Gtin $gtin, string $code): Label
    {
        $short = $gtin?->short() ?? '';

        return match (true) {
            13 === strlen($short), '' === $short && self::isPlain($code) => new Label(
                $key, $title, $lines, plain: '' === $short ? $code : $short,
            ),
            null !== $gtin => new Label($key, $title, $lines, Elements::of($gtin, '')),
            default => new Label($key, $title, $lines),
        };
    }

    /** Whether Code 128 has all its characters. */
    private static function isPlain(string $code): bool
    {
        return 1 === preg_match('/^[\x20-\x7e]+$/', $code);
    }

    private static function many(BigDecimal $units): int
    {
        return min(self::MOST, max(1, $units->toScale(0, RoundingMode::Up)->toInt()));
    }
}
