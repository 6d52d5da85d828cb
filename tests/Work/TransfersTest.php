<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Receiving\TransferCount;
use TallBarrel\Core\Receiving\TransferState;
use TallBarrel\Core\Replenish\Coming;
use TallBarrel\Core\Replenish\OpenOrder;
use TallBarrel\Store\Dock\Transfer;
use TallBarrel\Store\Dock\Transfers;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Order\OpenLines;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;
use TallBarrel\Store\Stock\Verification;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Receiving\AskForStock;
use TallBarrel\Work\Receiving\ReceiveTransfer;
use TallBarrel\Work\Receiving\SendTransfer;

/** Goods from one of our sites to another. */
final class TransfersTest extends StoreTestCase
{
    /** @param array<string, int> $lots units at the depot by lot, each to be used until the day it is called after */
    private static function stocked(array $lots, string $code = 'T-1'): Item
    {
        $item = self::item($code);
        self::entities()->flush();
        $postings = [];
        foreach ($lots as $lot => $units) {
            $lot = (string) $lot;
            $postings[] = new Posting($item->id, self::site('DEPOT')->id, MovementKind::Opening,
                BigDecimal::of($units), null, self::now()->setTime(0, 0), 'opening', null, $lot);
            if ('' !== $lot) {
                self::connection()->executeStatement(
                    'INSERT INTO lot (item_id, number, expires_on) VALUES (?, ?, ?)',
                    [$item->id, $lot, $lot],
                );
            }
        }
        self::get(Ledger::class)->enter($postings, null);

        return $item;
    }

    private static function ask(Item $item, int $units, string $key): ?Transfer
    {
        // After a refusal nothing that was read before is kept.
        $item = self::entities()->find(Item::class, $item->id) ?? self::fail('no item');

        return self::get(AskForStock::class)->ask(
            $item, self::site('DEPOT'), self::site('MILL'), BigDecimal::of($units), self::person('tam'), $key,
        )?->transfer;
    }

    /** @param array<string, int> $picked units by code; all that was asked for where none is said */
    private static function send(Transfer $transfer, array $picked = [], string $lot = ''): Problems
    {
        $problems = new Problems();
        $units = $lots = [];
        foreach ($transfer->lines() as $line) {
            $units[$line->id] = BigDecimal::of($picked[$line->item->code] ?? $line->wanted());
            $lots[$line->id] = $lot;
        }
        self::get(SendTransfer::class)->send($transfer, $units, $lots, self::person('tam'), $problems);

        return $problems;
    }

    private static function receive(Transfer $transfer, int $came, int $bad = 0, bool $lost = false): void
    {
        $line = $transfer->lines()[0];
        $arrival = new TransferCount($line->sent() ?? BigDecimal::zero(), BigDecimal::of($came), BigDecimal::of($bad),
            $bad > 0 ? 'broken' : '', $lost);
        self::get(ReceiveTransfer::class)->receive($transfer, [$line->id => $arrival], self::person('tam'),
            new Problems());
    }

    private static function units(Item $item, string $site, string $state = 'available'): float
    {
        $units = self::connection()->fetchOne(
            'SELECT COALESCE(SUM(quantity), 0) FROM stock_balance WHERE item_id = ? AND site_id = ? AND state = ?',
            [$item->id, self::site($site)->id, $state],
        );

        return is_numeric($units) ? (float) $units : -1.0;
    }

    private static function total(Item $item): float
    {
        $units = self::connection()->fetchOne('SELECT SUM(quantity) FROM stock_balance WHERE item_id = ?', [$item->id]);

        return is_numeric($units) ? (float) $units : -1.0;
    }

    private static function coming(Item $item, ?string $site): string
    {
        $open = self::get(OpenLines::class)->byItem(
            [$item->id],
            null === $site ? null : self::site($site)->id,
            self::now()->setTime(0, 0),
        )[$item->id] ?? Coming::nothing(self::now()->setTime(0, 0));

        return implode(', ', array_map(
            static fn (OpenOrder $one): string => $one->stockUnits.' of '.$one->number,
            $open->countedOn(),
        ));
    }

    private static function again(Transfer $transfer): Transfer
    {
        $found = self::get(Transfers::class)->byNumber($transfer->number);
        self::assertNotNull($found);

        return $found;
    }

    private static function proven(): void
    {
        self::assertSame([], self::get(Verification::class)->differences());
    }

    public function testWhatIsAskedForGoesOnOneListAndIsCountedOnOnce(): void
    {
        $item = self::stocked(['' => 20]);
        $first = self::ask($item, 12, 'k1');
        self::assertNotNull($first);
        self::assertNull(self::ask($item, 12, 'k1'), 'asked twice, it stands there once');
        self::mustRefuse(static fn () => self::ask($item, 9, 'k2'), 'holds 8 of T-1 that nobody asked for yet, not 9');
        self::assertSame($first->number, self::ask($item, 8, 'k3')?->number);
        self::assertCount(2, self::again($first)->lines());

        self::assertSame(20.0, self::units($item, 'DEPOT'), 'nothing has left');
        self::assertSame("12 of $first->number, 8 of $first->number", self::coming($item, 'MILL'));
        self::assertSame('', self::coming($item, 'DEPOT'));
        self::assertSame('', self::coming($item, null), 'for all sites together it stands where it stood');

        self::get(AskForStock::class)->drop(self::again($first), self::person('tam'));
        self::assertSame('', self::coming($item, 'MILL'));
        self::mustRefuse(static fn () => self::send(self::again($first)), 'given up already');
        self::assertNotSame($first->number, self::ask($item, 20, 'k4')?->number);
    }

    public function testWhatExpiresFirstLeavesFirstAndIsOnItsWayUntilItIsCounted(): void
    {
        $item = self::stocked(['2027-06-30' => 10, '2027-01-31' => 5]);
        $transfer = self::ask($item, 8, 'k');
        self::assertNotNull($transfer);
        self::send($transfer);
        $transfer = self::again($transfer);
        self::assertSame(TransferState::UnderWay, $transfer->state());
        $sent = [];
        foreach ($transfer->lines() as $line) {
            $sent[$line->lot()] = (string) $line->sent()?->strippedOfTrailingZeros();
        }
        self::assertSame(['2027-01-31' => '5', '2027-06-30' => '3'], $sent);
        self::assertSame([7.0, 8.0, 0.0], [
            self::units($item, 'DEPOT'), self::units($item, 'MILL', 'on-its-way'), self::units($item, 'MILL'),
        ]);
        $soon = self::connection()->fetchOne(
            'SELECT COALESCE(SUM(units), 0) FROM on_hand_soon WHERE item_id = ?',
            [$item->id],
        );
        self::assertIsNumeric($soon);
        self::assertSame(7.0, (float) $soon, 'what comes is not there as well');
        self::assertSame("5 of $transfer->number, 3 of $transfer->number", self::coming($item, null));
        self::mustRefuse(static fn () => self::send($transfer), 'on its way already');

        self::get(ReceiveTransfer::class)->receive(self::again($transfer), [], self::person('tam'), new Problems());
        self::assertSame([8.0, 0.0], [self::units($item, 'MILL'), self::units($item, 'MILL', 'on-its-way')]);
        self::assertSame('', self::coming($item, 'MILL'));
        self::mustRefuse(
            static fn () => self::get(ReceiveTransfer::class)->receive(self::again($transfer), [],
                self::person('tam'), new Problems()),
            'arrived already',
        );
        self::proven();
    }

    public function testALotCanBeChosenAndOnlyWhatIsThereLeaves(): void
    {
        $item = self::stocked(['2027-06-30' => 10, '2027-01-31' => 5]);
        $transfer = self::ask($item, 8, 'k');
        self::assertNotNull($transfer);
        $problems = new Problems();
        $line = $transfer->lines()[0];
        self::mustRefuse(static fn () => self::get(SendTransfer::class)->send(
            $transfer, [$line->id => BigDecimal::of(8)], [$line->id => '2027-01-31'], self::person('tam'), $problems,
        ), 'Nothing left yet');
        self::assertSame(
            'Depot holds 5 of T-1 in lot 2027-01-31, not 8.',
            $problems->at('picked-'.$line->id),
        );
        self::assertSame(15.0, self::units($item, 'DEPOT'));
        self::mustRefuse(static fn () => self::send(self::again($transfer), ['T-1' => 0]), 'Nothing was picked');
        self::send(self::again($transfer), ['T-1' => 6], '2027-06-30');
        self::assertSame('2027-06-30', self::again($transfer)->lines()[0]->lot());
        self::assertSame(9.0, self::units($item, 'DEPOT'));
    }

    /** @return array<string, array{int, int, bool, list<float>}> came, bad, lost; stock there, held there, here */
    public static function arrivals(): array
    {
        return [
            'as sent' => [10, 0, false, [10.0, 0.0, 10.0, 20.0]],
            'two broken' => [10, 2, false, [8.0, 2.0, 10.0, 20.0]],
            'three never left' => [7, 0, false, [7.0, 0.0, 13.0, 20.0]],
            'three lost' => [7, 1, true, [6.0, 1.0, 10.0, 17.0]],
            'four more than was said' => [14, 0, false, [14.0, 0.0, 6.0, 20.0]],
            'more than was said, and “lost” beside' => [14, 0, true, [14.0, 0.0, 6.0, 20.0]],
        ];
    }

    /** @param list<float> $stands */
    #[DataProvider('arrivals')]
    public function testWhatCameIsBookedAsItWasFound(int $came, int $bad, bool $lost, array $stands): void
    {
        $item = self::stocked(['' => 20]);
        $transfer = self::ask($item, 10, 'k');
        self::assertNotNull($transfer);
        self::send($transfer);
        self::receive(self::again($transfer), $came, $bad, $lost);
        self::assertSame($stands, [
            self::units($item, 'MILL'), self::units($item, 'MILL', 'held'), self::units($item, 'DEPOT'),
            self::total($item),
        ]);
        self::assertSame(0.0, self::units($item, 'MILL', 'on-its-way'));
        self::proven();
    }

    public function testWhatCannotHaveComeIsRefused(): void
    {
        $item = self::stocked(['' => 12]);
        $transfer = self::ask($item, 10, 'k');
        self::assertNotNull($transfer);
        self::send($transfer);
        $zero = BigDecimal::zero();
        $ten = BigDecimal::of(10);
        self::mustRefuse(static fn () => new TransferCount($ten, BigDecimal::of(-1), $zero, '', false), '0 or more');
        self::mustRefuse(
            static fn () => new TransferCount($ten, $ten, BigDecimal::of(11), 'x', false),
            '11 not good of 10',
        );
        self::mustRefuse(static fn () => new TransferCount($ten, $ten, BigDecimal::one(), ' ', false), 'what is wrong');
        $problems = new Problems();
        $line = self::again($transfer)->lines()[0];
        self::mustRefuse(static fn () => self::get(ReceiveTransfer::class)->receive(
            self::again($transfer),
            [$line->id => new TransferCount($ten, BigDecimal::of(13), $zero, '', false)],
            self::person('tam'),
            $problems,
        ), 'Nothing is booked yet');
        self::assertSame('13 came, 10 left, and Depot has only 2 more.', $problems->at('came-'.$line->id));
        $problems = new Problems();
        self::mustRefuse(static fn () => self::get(ReceiveTransfer::class)->receive(
            self::again($transfer),
            [$line->id => new TransferCount($ten, BigDecimal::of('9.5'), $zero, '', false)],
            self::person('tam'),
            $problems,
        ), 'Nothing is booked yet');
        self::assertStringContainsString('count whole ones', (string) $problems->at('came-'.$line->id));
        self::assertSame(10.0, self::units($item, 'MILL', 'on-its-way'));
        self::proven();
    }
}
