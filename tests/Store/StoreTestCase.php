<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Store;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Test\KernelTestCase;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Store\Dock\Delivery;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Item\Stocking;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Supplier\Supplier;

/** Against the real MariaDB with the demo loaded; what a test writes is rolled back. */
abstract class StoreTestCase extends KernelTestCase
{
    /**
     * @template T of object
     *
     * @param class-string<T> $class
     *
     * @return T
     */
    protected static function get(string $class): object
    {
        $service = self::getContainer()->get($class);
        self::assertInstanceOf($class, $service);

        return $service;
    }

    /** The test instance's clock stands still; see config/services.yaml. */
    protected static function now(): \DateTimeImmutable
    {
        return self::get(ClockInterface::class)->now();
    }

    protected static function entities(): EntityManagerInterface
    {
        return self::get(EntityManagerInterface::class);
    }

    protected static function connection(): Connection
    {
        return self::entities()->getConnection();
    }

    protected static function person(string $name): Person
    {
        $person = self::entities()
            ->getRepository(Person::class)
            ->findOneBy(['email' => $name.'@larkmoor.example']);
        self::assertNotNull($person);

        return $person;
    }

    protected static function site(string $code): Site
    {
        $site = self::entities()
            ->getRepository(Site::class)
            ->findOneBy(['code' => $code]);
        self::assertNotNull($site);

        return $site;
    }

    protected static function item(string $code, ?string $averageCost = null, bool $lots = false): Item
    {
        $item = new Item($code, 'Test item '.$code, 'Tests', Unit::Each);
        $item->measure(BigDecimal::one(), $lots);
        $item->costs(null === $averageCost ? null : BigDecimal::of($averageCost), null);
        self::entities()->persist($item);
        self::entities()->persist(new Stocking($item, self::site('FERRY'), null));

        return $item;
    }

    protected static function offer(Item $item, string $price, int $content = 12, ?Supplier $supplier = null): Offer
    {
        $offer = new Offer(
            $supplier ?? self::supplier(),
            $item,
            'THEIRS-'.$item->code,
            'case',
            BigDecimal::of($content),
        );
        $offer->price(PriceBreaks::of([[1, $price]]));
        self::entities()->persist($offer);

        return $offer;
    }

    protected static function supplier(string $currency = 'EUR'): Supplier
    {
        static $number = 0;
        self::assertIsInt($number);
        $supplier = new Supplier('TEST'.++$number.'X', 'Testing Supplies', $currency);
        $supplier->agreeTerms(PaymentTerms::net(30));
        $supplier->moveTo('Lane 1', '1', 'Town', 'IE');
        $supplier->orderThrough('Kay', 'kay@testing.example');
        self::entities()->persist($supplier);

        return $supplier;
    }

    /** @param list<array{Offer, int}> $lines */
    protected static function sentOrder(array $lines, string $number, ?ExchangeRate $rate = null): PurchaseOrder
    {
        $order = new PurchaseOrder(
            $number,
            $lines[0][0]->supplier,
            self::person('rowan'),
            $rate ?? ExchangeRate::of('EUR', 'EUR', 1),
            self::now()->modify('+3 days'),
            self::now(),
        );
        foreach ($lines as [$offer, $packs]) {
            OrderLine::fromOffer($order, $offer, self::site('FERRY'), BigDecimal::of($packs));
        }
        self::entities()->persist($order);
        $order->approve(self::person('rowan'), self::now());
        $order->send(self::now());
        self::entities()->flush();

        return $order;
    }

    protected static function draft(string $price, int $packs): PurchaseOrder
    {
        $offer = self::offer(self::item('O-'.$price.'-'.$packs), $price);
        $order = new PurchaseOrder(
            'PO-O'.$packs,
            $offer->supplier,
            self::person('mara'),
            ExchangeRate::of('EUR', 'EUR', 1),
            self::now()->modify('+3 days'),
            self::now(),
        );
        OrderLine::fromOffer($order, $offer, self::site('FERRY'), BigDecimal::of($packs));
        self::entities()->persist($order);
        self::entities()->flush();

        return $order;
    }

    protected static function delivery(PurchaseOrder ...$orders): Delivery
    {
        $delivery = new Delivery($orders[0]->supplier, self::site('FERRY'), 'DN-1', self::now());
        foreach ($orders as $order) {
            foreach ($order->lines() as $line) {
                $delivery->expect($line);
            }
        }
        self::entities()->persist($delivery);
        self::entities()->flush();

        return $delivery;
    }

    protected static function held(Item $item): string
    {
        $held = self::connection()->fetchOne('SELECT COALESCE(SUM(quantity), 0) FROM stock_balance WHERE item_id = ?', [
            $item->id,
        ]);
        self::assertIsString($held);

        return (string) BigDecimal::of($held)->strippedOfTrailingZeros();
    }

    /** That something is refused in so many words. */
    protected static function mustRefuse(callable $act, string $words): void
    {
        try {
            $act();
        } catch (Refused|InvalidValue $refused) {
            self::assertStringContainsString($words, $refused->getMessage());

            return;
        }
        self::fail('not refused: '.$words);
    }
}
