<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Messenger\MessageBusInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Core\Sourcing\Repricing;
use TallBarrel\Store\BulkInsert;
use TallBarrel\Store\Import\KnownHeadings;
use TallBarrel\Store\Offer\Offers;
use TallBarrel\Store\Offer\PriceList;
use TallBarrel\Store\Offer\PriceListLine;
use TallBarrel\Store\Offer\PriceLists;
use TallBarrel\Store\Offer\PriceMove;
use TallBarrel\Store\Offer\StandingOffers;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Keeping\KeptFiles;

/** Brings a supplier's price list: read, and set line by line against the offers that stand. */
final readonly class BringPriceList
{
    private const PROBLEMS_KEPT = 300;
    private const NEW_LEAD_DAYS = 7;
    private const NEEDED = ['code', 'prices'];

    public function __construct(
        private EntityManagerInterface $entities,
        private PriceListFormat $format,
        private Offers $offers,
        private KeptFiles $files,
        private KnownHeadings $known,
        private MessageBusInterface $bus,
        private ClockInterface $clock,
    ) {
    }

    /** @return array<string, string> what a file may say, see PriceListFormat */
    public function columns(): array
    {
        return $this->format->columns();
    }

    /** What stands, as a list in the same form: to send to the supplier, or to begin with. */
    public function standingAsFile(Supplier $supplier): string
    {
        return $this->format->write($this->offers->of($supplier));
    }

    /**
     * Takes a file in; a worker sets it against what stands, once it is clear which column is which. No offer is
     * changed.
     *
     * @throws InvalidValue if it is not such a file at all
     */
    public function bring(PriceList $list, string $file): void
    {
        $kind = KnownHeadings::pricesOf($list->supplier->id);
        $mapping = $this->format->headings($file, $this->known->of($kind))->mapping;
        $clear = [] === $this->missing($mapping);
        if ($clear) {
            $this->mustHoldLines($list, $file, $mapping);
        } elseif ([] === array_filter($mapping, static fn (string $column): bool => '' !== $column)
            && count($mapping) < 2) {
            throw InvalidValue::because(
                'The file has one column only. Expected a table: a line for each thing, its code and its price.',
            );
        }
        $list->isToBeReadFrom($this->files->keep($file), $mapping, $clear);
        $this->entities->wrapInTransaction(function () use ($list, $clear): void {
            $this->entities->persist($list);
            $this->entities->flush();
            if ($clear) {
                $this->bus->dispatch(new PriceListToRead($list->id));
            }
        });
    }

    /** How a list whose columns are unclear is headed. */
    public function headings(PriceList $list): ListHeadings
    {
        return $this->format->headings(
            $list->path(),
            $this->known->of(KnownHeadings::pricesOf($list->supplier->id)),
        );
    }

    /**
     * Somebody says which column is which; it is remembered for the supplier's next list.
     *
     * @param array<string, string> $mapping our column by heading in small letters; empty for one that is left out
     *
     * @throws InvalidValue if what is needed is missing, two columns mean the same, or nothing could be read so
     * @throws Refused      if it was read already
     */
    public function sayColumns(PriceList $list, array $mapping): void
    {
        $missing = $this->missing($mapping);
        if ([] !== $missing) {
            throw InvalidValue::because(sprintf('No column is said to be %s yet.', implode(' or ', $missing)));
        }
        $said = array_filter($mapping, static fn (string $column): bool => '' !== $column);
        $twice = array_diff_assoc($said, array_unique($said));
        if ([] !== $twice) {
            throw InvalidValue::because(sprintf('Two columns cannot both be “%s”.', reset($twice)));
        }
        if ($list->isUnclear()) {
            $this->mustHoldLines($list, $list->path(), $mapping);
        }
        $this->entities->wrapInTransaction(function () use ($list, $mapping): void {
            $this->entities->lock($list, LockMode::PESSIMISTIC_WRITE);
            $this->entities->refresh($list);
            $list->means($mapping);
            $this->known->remember(KnownHeadings::pricesOf($list->supplier->id), $mapping);
            $this->bus->dispatch(new PriceListToRead($list->id));
        });
    }

    /**
     * @param array<string, string> $mapping
     *
     * @return list<string>
     */
    private function missing(array $mapping): array
    {
        return array_values(array_diff(self::NEEDED, $mapping));
    }

    /**
     * @param array<string, string> $mapping
     *
     * @throws InvalidValue
     */
    private function mustHoldLines(PriceList $list, string $file, array $mapping): void
    {
        $problems = $unread = [];
        $lines = $this->format->read($file, $mapping, $list->supplier->currency(), $problems, $unread);
        $lines->rewind();
        if (!$lines->valid() && [] === $problems) {
            throw InvalidValue::because('The file names its columns but lists nothing.');
        }
    }

    /** Read twice, it counts once. */
    #[AsMessageHandler]
    public function read(PriceListToRead $message): void
    {
        $list = $this->entities->find(PriceList::class, $message->list);
        $file = $list?->fileToRead();
        if (null === $list || null === $file) {
            return;
        }
        $problems = $lines = $unread = [];
        $read = $this->format->read($file, $list->mapping(), $list->supplier->currency(), $problems, $unread);
        foreach ($read as $line) {
            $lines[] = $line;
        }
        $this->entities->wrapInTransaction(function () use ($list, $lines, $unread, &$problems): void {
            $this->entities
                ->getConnection()
                ->executeStatement('DELETE FROM price_list_row WHERE list_id = ?', [$list->id]);
            $this->compare($list, $lines, $unread, $problems);
            usort($problems, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
            $bad = count(array_unique(array_column($problems, 0)));
            $list->wasRead(count($lines), $bad, array_slice($problems, 0, self::PROBLEMS_KEPT));
        });
        $this->files->remove($file);
    }

    /**
     * @param list<PriceListLine>                      $lines
     * @param list<string>                             $unread   codes of lines that could not be used
     * @param list<array{int, string, string, string}> $problems
     */
    private function compare(PriceList $list, array $lines, array $unread, array &$problems): void
    {
        $connection = $this->entities->getConnection();
        /** @var array<string, int> $items */
        $items = $connection->fetchAllKeyValue('SELECT UPPER(code), id FROM item');
        /** @var array<string, int> $gtins */
        $gtins = $connection->fetchAllKeyValue('SELECT gtin, id FROM item WHERE gtin IS NOT NULL');
        $standing = StandingOffers::of($connection, $list->supplier->id, $this->clock->now()->modify('-1 year'));
        $rows = new BulkInsert($connection, 'price_list_row', [
            'list_id',
            'move',
            'file_line',
            'offer_id',
            'item_id',
            'code',
            'description',
            'pack_name',
            'content',
            'old_content',
            'minimum',
            'multiple',
            'lead_days',
            'old_steps',
            'steps',
            'percent',
            'yearly',
            'chosen',
        ]);
        /** @var array<int, int> $listed file line by offer */
        $listed = [];
        foreach ($lines as $line) {
            $item =
                '' !== $line->item
                    ? $items[strtoupper($line->item)] ?? null
                    : ('' !== $line->gtin
                        ? $gtins[$line->gtin] ?? null
                        : null);
            try {
                if ('' !== $line->item && null === $item) {
                    throw InvalidValue::because('no such item');
                }
                $offer = $standing->meant($line, $item);
                if (null === $offer) {
                    $move = null === $item ? PriceMove::NotHeld : PriceMove::Added;
                    $rows->add(
                        $list->id,
                        $move->value,
                        $line->line,
                        null,
                        $item,
                        $line->code,
                        $line->description,
                        $line->packName(),
                        (string) ($line->content ?? 1),
                        null,
                        (string) ($line->minimum ?? 1),
                        (string) ($line->multiple ?? 1),
                        $line->leadDays ?? self::NEW_LEAD_DAYS,
                        null,
                        self::json($line->prices),
                        null,
                        null,
                        null !== $item,
                    );
                    continue;
                }
                if (isset($listed[$offer['id']])) {
                    throw InvalidValue::because(sprintf('the same offer as in line %d', $listed[$offer['id']]));
                }
                $listed[$offer['id']] = $line->line;
                $prices = $line->prices->reckonedAs($offer['prices']->kind, $offer['prices']->basis);
            } catch (InvalidValue $problem) {
                $problems[] = [
                    $line->line,
                    '' !== $line->item && null === $item ? 'item' : 'code',
                    $line->code ?: $line->item,
                    $problem->getMessage(),
                ];
                $unread[] = $line->code;
                continue;
            }
            $content = $line->content ?? $offer['content'];
            $change = Repricing::between($offer['prices'], $offer['content'], $prices, $content);
            $percent = $change->percent();
            $move = match (true) {
                0.0 === $percent
                    && $offer['content']->isEqualTo($content)
                    && self::json($offer['prices']) === self::json($prices) => PriceMove::Same,
                null === $percent
                    || $percent > $list->limitPercent()->toFloat()
                    || $percent < -PriceLists::STRIKING_FALL => PriceMove::Striking,
                $percent > 0 => PriceMove::Rise,
                default => PriceMove::Fall,
            };
            $yearly = $offer['year']->isZero()
                ? BigDecimal::zero()
                : $change
                    ->ofUnit($offer['usual'] ?? $offer['content'])
                    ->multipliedBy($offer['year'])
                    ->toScale(2, RoundingMode::HalfUp);
            $rows->add(
                $list->id,
                $move->value,
                $line->line,
                $offer['id'],
                $offer['item'],
                $line->code,
                $line->description,
                $offer['pack'],
                (string) $content,
                (string) $offer['content'],
                1,
                1,
                0,
                $offer['steps'],
                self::json($prices),
                null === $percent ? null : min($percent, 9999999),
                (string) $yearly,
                PriceMove::Striking !== $move,
            );
        }
        // What stands in a line that cannot be used is not gone.
        $named = array_flip(array_merge(...array_map($standing->withCode(...), $unread)));
        foreach ($list->complete ? $standing->offers : [] as $id => $offer) {
            if (!isset($listed[$id]) && !isset($named[$id])) {
                $rows->add(
                    $list->id,
                    PriceMove::Gone->value,
                    0,
                    $id,
                    $offer['item'],
                    $offer['code'],
                    '',
                    $offer['pack'],
                    (string) $offer['content'],
                    (string) $offer['content'],
                    1,
                    1,
                    0,
                    $offer['steps'],
                    null,
                    null,
                    null,
                    false,
                );
            }
        }
        $rows->flush();
    }

    private static function json(PriceBreaks $prices): string
    {
        return (string) json_encode(
            array_map(
                static fn (array $step): array => [
                    (string) $step['from']->strippedOfTrailingZeros(),
                    (string) $step['price']->strippedOfTrailingZeros(),
                ],
                $prices->steps,
            ),
        );
    }
}
