<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Store;

use Brick\Math\BigDecimal;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Sourcing\BreakKind;
use TallBarrel\Core\Sourcing\ChainedDiscounts;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Store\Agreement\Agreement;
use TallBarrel\Store\Agreement\Agreements;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Offer\OfferPrice;
use TallBarrel\Store\Offer\OfferPrices;
use TallBarrel\Store\Supplier\Address;
use TallBarrel\Store\Supplier\Contact;

/** Offers, their prices over time, agreements and what is kept of a supplier. */
final class SourcingTest extends StoreTestCase
{
    private function day(string $day): \DateTimeImmutable
    {
        return new \DateTimeImmutable($day);
    }

    private function fresh(Offer $offer): Offer
    {
        self::entities()->clear();
        $fresh = self::entities()->find(Offer::class, $offer->id);
        self::assertNotNull($fresh);

        return $fresh;
    }

    public function testAPriceToComeComesIntoForceOnItsDayAndTheLastOfSeveralHolds(): void
    {
        $offer = self::offer(self::item('SRC-1'), '10');
        self::entities()->flush();
        $prices = self::get(OfferPrices::class);
        $today = self::now()->setTime(0, 0);
        foreach (['2026-12-01' => '11', '2026-12-05' => '12', '2026-12-24' => '13'] as $from => $price) {
            $prices->change(
                $offer,
                PriceBreaks::of([[1, $price], [20, (string) ((int) $price - 1)]], BreakKind::Incremental),
                $this->day($from),
                $today,
                'test',
            );
            self::entities()->flush();
        }
        self::assertSame('10', $this->fresh($offer)->listPrices()->label());
        self::assertSame(1, $prices->putInForce($this->day('2026-12-10')));
        $now = $this->fresh($offer);
        self::assertSame(
            ['1=12 20=11', BreakKind::Incremental],
            [$now->listPrices()->label(), $now->listPrices()->kind],
        );
        self::assertSame(0, $prices->putInForce($this->day('2026-12-10')), 'once is enough');
        self::assertSame(
            [true, true, false, true],
            array_map(static fn (int $i): bool => $prices->of($now)[[3, 1, 0, 2][$i]]->isApplied(), range(0, 3)),
        );
        self::assertSame(
            ['13', '12', '11', '10'],
            array_map(
                static fn (OfferPrice $price): string => (string) $price->prices()->steps[0]['price'],
                $prices->of($now),
            ),
        );
    }

    public function testDiscountsComeOffTheListAndAPackThatHoldsItselfIsRefused(): void
    {
        $offer = self::offer(self::item('SRC-2'), '100');
        $offer->discount(ChainedDiscounts::read('10 + 5'));
        self::assertSame(['100', '85.5'], [$offer->listPrices()->label(), $offer->prices()->label()]);
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage('A case cannot contain a case');
        $offer->describe('', '', 'layer=8 case=4');
    }

    public function testAnOfferHoldsBetweenItsDaysUnlessItIsBlocked(): void
    {
        $offer = self::offer(self::item('SRC-3'), '5');
        $offer->promise(7, 1, $this->day('2026-12-31'), $this->day('2026-12-01'));
        self::assertSame(
            [false, true, true, false],
            array_map(fn (string $day): bool => $offer->isInForce($this->day($day)), [
                '2026-11-30',
                '2026-12-01',
                '2026-12-31',
                '2027-01-01',
            ]),
        );
        $offer->block(true);
        self::assertFalse($offer->isInForce($this->day('2026-12-15')));
        $this->expectExceptionMessage('before it begins');
        $offer->promise(7, 1, $this->day('2026-11-01'), $this->day('2026-12-01'));
    }

    public function testAnAgreementForTheItemComesBeforeOneForItsCategory(): void
    {
        $item = self::item('SRC-4');
        $supplier = self::supplier();
        $make = static function (string $number, bool $forItem) use ($supplier, $item): Agreement {
            $agreement = new Agreement($number, $supplier, $forItem ? $item : null, $forItem ? '' : 'Tests');
            $agreement->promise(
                $forItem ? Agreement::QUANTITY : Agreement::VALUE,
                BigDecimal::of(100),
                null,
                null,
                BigDecimal::zero(),
            );
            $agreement->hold(new \DateTimeImmutable('2026-11-01'), new \DateTimeImmutable('2026-12-31'), '');
            self::entities()->persist($agreement);

            return $agreement;
        };
        $make('A-T1', false);
        $own = $make('A-T2', true);
        self::entities()->flush();
        $agreements = self::get(Agreements::class);
        self::assertSame('A-T2', $agreements->fitting($supplier, $item, self::now())?->number);
        $own->end();
        self::entities()->flush();
        self::assertSame('A-T1', $agreements->fitting($supplier, $item, self::now())?->number);
        self::assertNull($agreements->fitting($supplier, $item, $this->day('2027-01-01')), 'not after its last day');
        self::assertNull($agreements->fitting(self::supplier(), $item, self::now()), 'not from somebody else');
    }

    public function testASupplierHasAddressesAndContactsByRole(): void
    {
        $supplier = self::supplier();
        $supplier->moveTo('Kiln Lane 1', 'K1', 'Kilnton', 'ie');
        $supplier->moveTo('Bank Street 2', 'B2', 'Banks', 'IE', Address::PAY);
        $supplier->orderThrough('Olive', 'orders@kiln.example');
        $supplier->orderThrough('Ada', 'accounts@kiln.example', '', Contact::ACCOUNTS);
        self::entities()->flush();
        self::entities()->refresh($supplier);
        self::assertSame(
            ['Kiln Lane 1, K1 Kilnton, IE', 'Bank Street 2, B2 Banks, IE', 'Kiln Lane 1, K1 Kilnton, IE'],
            array_map(static fn (string $role): ?string => $supplier->addressFor($role)?->oneLine(), [
                Address::ORDER,
                Address::PAY,
                Address::SHIP_FROM,
            ]),
        );
        self::assertSame(
            ['Olive', 'Ada', 'Olive'],
            array_map(static fn (string $role): ?string => $supplier->contactFor($role)?->name(), [
                Contact::ORDERS,
                Contact::ACCOUNTS,
                Contact::QUOTES,
            ]),
        );
        $supplier->moveTo('', '', '', '', Address::PAY);
        $supplier->orderThrough('', '', '', Contact::ACCOUNTS);
        self::entities()->flush();
        self::assertSame(
            [1.0, 1.0],
            [
                (float) $this->rows('supplier_address', $supplier->id),
                (float) $this->rows('supplier_contact', $supplier->id),
            ],
        );
        $this->expectExceptionMessage('“Ireland” is not a country code');
        $supplier->moveTo('Kiln Lane 1', 'K1', 'Kilnton', 'Ireland');
    }

    private function rows(string $table, int $supplier): int
    {
        $count = self::connection()->fetchOne("SELECT COUNT(*) FROM $table WHERE supplier_id = ?", [$supplier]);

        return is_numeric($count) ? (int) $count : -1;
    }

    public function testNobodyIsPaidThroughThemselvesInAnyNumberOfSteps(): void
    {
        [$a, $b, $c] = [self::supplier(), self::supplier(), self::supplier()];
        $a->isPaidThrough($b);
        $b->isPaidThrough($c);
        $this->expectException(InvalidValue::class);
        $c->isPaidThrough($a);
    }
}
