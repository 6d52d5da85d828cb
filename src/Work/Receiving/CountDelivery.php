<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Quantity\Gtin;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Receiving\Count;
use TallBarrel\Core\Receiving\CountFinding;
use TallBarrel\Core\Receiving\Gs1\Elements;
use TallBarrel\Core\Receiving\Gs1\ElementString;
use TallBarrel\Core\Receiving\LotFacts;
use TallBarrel\Core\Receiving\SerialNumbers;
use TallBarrel\Store\Dock\Delivery;
use TallBarrel\Store\Dock\DeliveryLine;
use TallBarrel\Store\Item\Gtins;

/** Keeps what was counted of a delivery: typed by line, scanned, or all as ordered. */
final readonly class CountDelivery
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Gtins $gtins,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param array<int, LineCount> $counts   by the delivery line's id
     * @param bool                  $rest     whether what nobody has counted is there as ordered
     * @param Scan|null             $scan     a code read last
     * @param int|null              $another  the id of a line of which another lot is there
     * @param Problems              $problems what cannot be so is added, the rest is kept
     *
     * @return string|null what the scan did, in words
     */
    public function count(
        Delivery $delivery,
        array $counts,
        bool $rest,
        ?Scan $scan,
        Problems $problems,
        ?int $another = null,
    ): ?string {
        return $this->entities->wrapInTransaction(function () use (
            $delivery,
            $counts,
            $rest,
            $scan,
            $problems,
            $another,
        ): ?string {
            $this->entities->lock($delivery, LockMode::PESSIMISTIC_WRITE);
            foreach ($delivery->lines() as $line) {
                $this->line($line, $counts[$line->id] ?? null, $problems);
                if ($rest && null === $line->counted() && null === $line->beside) {
                    $line->count($line->asExpected());
                }
                if ($line->id === $another) {
                    $delivery->beside($line);
                }
            }

            return null === $scan || !$delivery->takesScan($scan->key) ? null
                : $this->scan($delivery, $scan, $problems);
        });
    }

    private function line(DeliveryLine $line, ?LineCount $count, Problems $problems): void
    {
        if (true === $count?->said) {
            $problems->apply('counted-'.$line->id, static fn () => $line->count($count->packs));
        }
        if (null !== $count?->bad) {
            $problems->apply('bad-'.$line->id, static fn () => $line->isBad($count->bad, $count->badBecause));
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

    /** A code alone adds one pack, with a number it sets the count; a GS1 symbol brings lot, days and more along. */
    private function scan(Delivery $delivery, Scan $scan, Problems $problems): ?string
    {
        if (ElementString::isOne($scan->code)) {
            $symbol = $problems->attempt(
                'scan',
                fn (): ElementString => ElementString::read($scan->code, $this->clock->now()),
            );

            return null === $symbol ? null : $this->symbol($delivery, $symbol, $problems);
        }
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
            $counted = $line->counted() ?? BigDecimal::zero();
            $packs = $scan->packs ?? $counted->plus($this->packsIn($line, $scan->code));
            self::mustFit($line, $packs->minus($counted));
            $line->count($packs);

            return sprintf(
                'Read: %s, now %s %s.',
                $line->line->description,
                $packs->strippedOfTrailingZeros(),
                $line->line->pack()->named($packs),
            );
        });
    }

    private function symbol(Delivery $delivery, ElementString $symbol, Problems $problems): ?string
    {
        $ours = $symbol->elements[Elements::OUR_CODE] ?? '';
        $code = $symbol->gtin->digits ?? $ours;
        $line = '' === $code ? null : $this->lineFor($delivery, $code);
        if (null === $line) {
            $problems->refuse('scan', match (true) {
                null !== $symbol->gtin => sprintf('GTIN %s is on none of these orders.', $symbol->gtin->short()),
                '' !== $ours => sprintf('%s is on none of these orders.', $ours),
                default => 'The symbol names no goods; scan the one that begins with (01) or (02).',
            });

            return null;
        }

        return $problems->attempt('scan', function () use ($delivery, $symbol, $line): string {
            $more = $this->packsBy($line, $symbol);
            self::mustFit($line, $more);
            $here = $this->rowFor($delivery, $line, $symbol->lot);
            $serials = '' === $symbol->serial
                ? $here->serials()
                : SerialNumbers::read(implode(' ', [...$here->serials(), $symbol->serial]));
            $words = 'Read: '.$here->line->description;
            if ('' !== $symbol->lot) {
                $lot = $this->lotOf($here, $symbol);
                $here->inLot($lot);
                $words .= ', lot '.$lot->number.($lot->isOver($this->clock->now())
                    ? sprintf(
                        ', use by %s, which is over: it will be held back',
                        $lot->expiresOn?->format('j M Y') ?? '',
                    )
                    : '');
            }
            $packs = ($here->counted() ?? BigDecimal::zero())->plus($more);
            $here->count($packs);
            $here->carries($serials);

            return sprintf(
                '%s, now %s %s.',
                $words,
                $packs->strippedOfTrailingZeros(),
                $here->line->pack()->named($packs),
            );
        });
    }

    /** @throws InvalidValue if with so many packs more than was ordered, and is tolerated, would be there */
    private static function mustFit(DeliveryLine $line, BigDecimal $more): void
    {
        $finding = ($line->beside ?? $line)->finding();
        $all = $more->plus($finding->counted ?? 0);
        if (CountFinding::TooMuch === Count::of($finding->outstanding, $all)->finding) {
            throw InvalidValue::because(sprintf(
                '%s: that makes %s, more than was ordered. Set the rest aside.',
                $line->line->description,
                $all->strippedOfTrailingZeros(),
            ));
        }
    }

    /** @throws InvalidValue if it cannot be so */
    private function lotOf(DeliveryLine $line, ElementString $symbol): LotFacts
    {
        return LotFacts::of(
            $line->lot() ?: $symbol->lot,
            $symbol->useBy ?? $line->expiresOn(),
            $symbol->madeOn ?? $line->madeOn(),
            $line->origin(),
            $line->line->item?->shelfDays(),
            $this->clock->now(),
        );
    }

    /** The row of that lot, or a free one, or one more. */
    private function rowFor(Delivery $delivery, DeliveryLine $line, string $lot): DeliveryLine
    {
        $first = $line->beside ?? $line;
        $rows = [$first, ...$first->others()];
        if ('' === $lot) {
            return $line;
        }
        foreach ($rows as $row) {
            if (0 === strcasecmp($row->lot(), $lot)) {
                return $row;
            }
        }
        foreach ($rows as $row) {
            if ('' === $row->lot()) {
                return $row;
            }
        }

        return $delivery->beside($first);
    }

    /** Of goods kept by weight the kilograms; else how many the symbol says there are; else one of its GTIN. */
    private function packsBy(DeliveryLine $line, ElementString $symbol): BigDecimal
    {
        $content = $line->line->pack()->content;
        $packs = fn (BigDecimal $units): BigDecimal => $units->dividedBy($content, 6, RoundingMode::HalfUp)
            ->strippedOfTrailingZeros();
        $each = $this->packsIn($line, $symbol->gtin->digits ?? '');

        return match (true) {
            null !== $symbol->kilograms && Unit::Kilogram === $line->line->item?->unit => $packs($symbol->kilograms),
            isset($symbol->elements['37']) => $each->multipliedBy($symbol->count ?? 1),
            null !== $symbol->count => $packs(BigDecimal::of($symbol->count)),
            default => $each,
        };
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
            if ($line->missing()->isPositive()) {
                return $line;
            }
        }

        return $found[0] ?? null;
    }
}
