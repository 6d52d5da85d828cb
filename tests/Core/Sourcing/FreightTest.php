<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Sourcing;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Gtin;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Core\Sourcing\QuoteState;

/** What carrying costs, exactly where one price ends and the next begins; and what may become of a quote. */
final class FreightTest extends TestCase
{
    #[DataProvider('orders')]
    public function testFreightAtItsSteps(string $tariff, float $value, float $kilograms, float $expected): void
    {
        self::assertSame($expected, self::tariff($tariff)->of($value, $kilograms));
    }

    /** @return iterable<string, array{string, float, float, float}> */
    public static function orders(): iterable
    {
        yield 'nothing ordered' => ['flat', 0.0, 0.0, 0.0];
        yield 'a gift' => ['flat', 0.0, 1.0, 24.0];
        yield 'nothing heavy' => ['flat', 1.0, 0.0, 24.0];
        yield 'below free' => ['flat', 499.99, 5.0, 24.0];
        yield 'free' => ['flat', 500.0, 5.0, 0.0];
        yield 'first step' => ['weight', 10.0, 29.999, 9.0];
        yield 'second step' => ['weight', 10.0, 30.0, 18.0];
        yield 'last step' => ['weight', 10.0, 900.0, 45.0];
        yield 'weighs nothing' => ['weight', 10.0, 0.0, 9.0];
        yield 'one pallet' => ['pallet', 10.0, 600.0, 35.0];
        yield 'two' => ['pallet', 10.0, 600.01, 70.0];
        yield 'half a one' => ['pallet', 10.0, 0.0, 35.0];
        yield 'none' => ['none', 10.0, 5.0, 0.0];
    }

    public function testTheTiersAreTheTariff(): void
    {
        foreach (['flat', 'weight', 'pallet', 'none'] as $kind) {
            $tariff = self::tariff($kind);
            foreach ([
                [20.0, 0.0],
                [20.0, 29.9],
                [20.0, 30.0],
                [20.0, 600.0],
                [20.0, 601.0],
                [700.0, 900.0],
            ] as [$value, $kg]) {
                $allowed = array_filter(
                    $tariff->tiers(1200.0),
                    static fn (array $tier): bool => $value >= ($tier['valueFrom'] ?? 0.0)
                        && $kg <= ($tier['kgUpTo'] ?? INF),
                );
                self::assertSame($tariff->of($value, $kg), min(INF, ...array_column($allowed, 'cost')), $kind.' '.$kg);
            }
        }
        self::assertCount(2, self::tariff('pallet')->tiers(1200.0));
        self::assertCount(3, self::tariff('pallet')->tiers(1200.1));
        self::assertCount(1, self::tariff('pallet')->tiers(0.0));
        self::assertCount(2, self::tariff('weight')->tiers(99.9), 'no order reaches the third step');
        self::assertCount(3, self::tariff('weight')->tiers(100.0));
    }

    #[DataProvider('nonsense')]
    public function testATariffThatCannotBeIsRefused(string $expected, string $steps): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage($expected);
        FreightTariff::readSteps($steps);
    }

    /** @return iterable<array{string, string}> */
    public static function nonsense(): iterable
    {
        yield ['needs a first step from 0 kg', ''];
        yield ['needs a first step from 0 kg', '5=9'];
        yield ['must start later and cost no less', '0=9 0=12'];
        yield ['must start later and cost no less', '0=9 30=8'];
        yield ['“30:18” is not a step', '0=9 30:18'];
    }

    public function testStepsAreReadInAnyOrderAndMayCostTheSame(): void
    {
        self::assertSame('0=9 30=9 100=45', FreightTariff::readSteps('100=45 0=9 30=9')->stepsLabel());
        self::assertSame('by weight 0=9 30=18 100=45', self::tariff('weight')->label());
        self::assertSame('24 an order, free from 500', self::tariff('flat')->label());
        $this->expectExceptionMessage('A pallet of 0 kg cannot be');
        FreightTariff::byPallet(35.0, 0.0);
    }

    public function testAQuoteThatWonOrLostIsSettled(): void
    {
        $open = array_filter(QuoteState::cases(), static fn (QuoteState $state): bool => $state->isOpen());
        self::assertSame([QuoteState::Asked, QuoteState::Answered, QuoteState::Declined], array_values($open));
        foreach (QuoteState::cases() as $from) {
            foreach (QuoteState::cases() as $to) {
                self::assertSame(
                    $from->isOpen() && QuoteState::Asked !== $to,
                    $from->canBecome($to),
                    $from->value.' to '.$to->value,
                );
            }
        }
    }

    /** Source: GS1 General Specifications, check digit calculation: 629104150021 takes a 3 (their example). */
    public function testTheCheckDigitOfAnItemNumber(): void
    {
        self::assertSame(3, Gtin::checkDigit('629104150021'));
        self::assertSame('06291041500213', Gtin::of('6291041500213')->digits);
        self::assertSame('06291041500213', Gtin::of(' 6291 0415-00213 ')->digits);
        self::assertNull(Gtin::tryOf('6291041500214'));
        self::assertNull(Gtin::tryOf('629104150021'), 'twelve digits of another number');
        $this->expectExceptionMessage('its check digit is 3; one digit is mistyped');
        Gtin::of('6291041500218');
    }

    private static function tariff(string $kind): FreightTariff
    {
        return match ($kind) {
            'flat' => FreightTariff::flat(24.0, 500.0),
            'weight' => FreightTariff::readSteps('0=9 30=18 100=45'),
            'pallet' => FreightTariff::byPallet(35.0, 600.0),
            default => FreightTariff::none(),
        };
    }
}
