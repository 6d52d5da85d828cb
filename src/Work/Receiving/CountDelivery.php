<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Quantity\Gtin;
use TallBarrel\Core\Receiving\CountFinding;
use TallBarrel\Store\Dock\Delivery;
use TallBarrel\Store\Dock\DeliveryLine;
use TallBarrel\Store\Item\Gtins;

/** Keeps what was counted of a delivery: typed by line, scanned, or all as ordered. */
final readonly class CountDelivery
{
    public function __construct(private EntityManagerInterface $entities, private Gtins $gtins)
    {
    }

    /**
     * @param array<int, LineCount> $counts   by the delivery line's id
     * @param bool                  $rest     whether what nobody has counted is there as ordered
     * @param Scan|null             $scan     a code read last
     * @param Problems              $problems what cannot be so is added, the rest is kept
     *
     * @return string|null what the scan did, in words
     */
    public function count(Delivery $delivery, array $counts, bool $rest, ?Scan $scan, Problems $problems): ?string
    {
        return $this->entities->wrapInTransaction(function () use (
            $delivery,
            $counts,
            $rest,
            $scan,
            $problems,
        ): ?string {
            $this->entities->lock($delivery, LockMode::PESSIMISTIC_WRITE);
            foreach ($delivery->lines() as $line) {
                $this->line($line, $counts[$line->id] ?? null, $problems);
                if ($rest && null === $line->counted()) {
                    $line->count($line->expected());
                }
            }

            return null === $scan ? null : $this->scan($delivery, $scan, $problems);
        });
    }

    private function line(DeliveryLine $line, ?LineCount $count, Problems $problems): void
    {
        if (true === $count?->said) {
            $problems->apply('counted-'.$line->id, static fn () => $line->count($count->packs));
        }
        if (null !== $count?->keepRest) {
            $line->keepRest($count->keepRest);
        }
        if (null !== $count?->lot) {
            $line->inLot($count->lot);
        }
        if (null !== $count?->serials) {
            $line->carries($count->serials);
        }
    }

    /** A code alone adds one pack, with a number it sets the count. */
    private function scan(Delivery $delivery, Scan $scan, Problems $problems): ?string
    {
        $line = $this->lineFor($delivery, $scan->code);
        if (null === $line) {
            $problems->refuse(
                'scan',
                sprintf(
                    '“%s” is on none of these orders. Check the code, or start a delivery with the order it '
                    .'belongs to.',
                    $scan->code,
                ),
            );

            return null;
        }

        return $problems->attempt('scan', function () use ($line, $scan): string {
            $packs = $scan->packs ?? ($line->counted() ?? BigDecimal::zero())->plus($this->packsIn($line, $scan->code));
            $line->count($packs);
            if (CountFinding::TooMuch === $line->finding()->finding) {
                throw InvalidValue::because(
                    sprintf(
                        '%s: that makes %s, more than was ordered. Set the rest aside.',
                        $line->line->description,
                        $packs,
                    ),
                );
            }

            return sprintf('Read: %s, now %s %s.', $line->line->description, $packs, $line->line->packName);
        });
    }

    /** The GTIN of a pack says how much there is of it; anything else stands for one pack as it was ordered. */
    private function packsIn(DeliveryLine $line, string $code): BigDecimal
    {
        $gtin = Gtin::tryOf($code);
        $pack = null === $gtin ? null : $this->gtins->packs([$gtin->digits])[$gtin->digits] ?? null;

        return null === $pack
            ? BigDecimal::one()
            : $pack['units']->dividedBy($line->line->pack()->content, 6, RoundingMode::HalfUp)
                ->strippedOfTrailingZeros();
    }

    /** By GTIN, our code or theirs; the same item on two orders: the one that is not full yet takes it. */
    private function lineFor(Delivery $delivery, string $code): ?DeliveryLine
    {
        $gtin = Gtin::tryOf($code);
        $packed = null === $gtin ? null : $this->gtins->packs([$gtin->digits])[$gtin->digits]['item'] ?? null;
        $found = array_values(
            array_filter($delivery->lines(), static function (DeliveryLine $line) use ($code, $gtin, $packed): bool {
                $item = $line->line->item;
                $theirs = $line->line->supplierCode();

                return null !== $item
                    && (0 === strcasecmp($item->code, $code)
                        || ('' !== $theirs && 0 === strcasecmp($theirs, $code))
                        || (null !== $gtin && $item->gtin()?->digits === $gtin->digits)
                        || $item->id === $packed);
            }),
        );
        foreach ($found as $line) {
            if (null === $line->counted() || $line->counted()->isLessThan($line->expected())) {
                return $line;
            }
        }

        return $found[0] ?? null;
    }
}
