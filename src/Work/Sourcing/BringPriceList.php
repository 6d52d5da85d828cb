<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Messenger\MessageBusInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Core\Sourcing\Repricing;
use TallBarrel\Store\BulkInsert;
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

    public function __construct(
        private EntityManagerInterface $entities,
        private PriceListFormat $format,
        private Offers $offers,
        private KeptFiles $files,
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
     * Takes a file in; a worker sets it against what stands. No offer is changed.
     *
     * @throws InvalidValue if it is not such a file at all
     */
    public function bring(PriceList $list, string $file): void
    {
        $this->mustHoldLines($list, $file);
        $kept = $this->files->keep($file);
        $list->isToBeReadFrom($kept);
        $this->entities->wrapInTransaction(function () use ($list): void {
            $this->entities->persist($list);
            $this->entities->flush();
            $this->bus->dispatch(new PriceListToRead($list->id));
        });
    }

    /** @throws InvalidValue */
    private function mustHoldLines(PriceList $list, string $file): void
    {
        $problems = $unread = [];
        $lines = $this->format->read($file, $list->supplier->currency(), $problems, $unread);
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
        foreach ($this->format->read($file, $list->supplier->currency(), $problems, $unread) as $line) {
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
