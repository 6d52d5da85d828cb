<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Ordering;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Core\Ordering\Shipping;
use TallBarrel\Core\Sourcing\Incoterm;

/** Where a purchase order stands, where it may go from there, and how it comes. */
final class OrderStateTest extends TestCase
{
    /** @return iterable<string, array{OrderState, list<string>}> */
    public static function ways(): iterable
    {
        foreach ([
            'draft' => ['awaiting-approval', 'approved', 'cancelled'],
            'awaiting-approval' => ['draft', 'approved', 'cancelled'],
            'approved' => ['draft', 'sent', 'cancelled'],
            'sent' => ['acknowledged', 'part-received', 'received', 'closed', 'cancelled'],
            'acknowledged' => ['sent', 'part-received', 'received', 'closed', 'cancelled'],
            'part-received' => ['sent', 'acknowledged', 'part-received', 'received', 'closed'],
            'received' => ['sent', 'acknowledged', 'part-received', 'closed'],
            'closed' => ['sent', 'acknowledged', 'part-received'],
            'cancelled' => ['draft', 'sent', 'acknowledged'],
        ] as $from => $to) {
            yield $from => [OrderState::from($from), $to];
        }
    }

    /** @param list<string> $to */
    #[DataProvider('ways')]
    public function testItGoesWhereItMayAndNowhereElse(OrderState $from, array $to): void
    {
        $reached = array_filter(OrderState::cases(), static fn (OrderState $next): bool => $from->canBecome($next));
        self::assertSame($to, array_values(array_map(static fn (OrderState $one): string => $one->value, $reached)));
    }

    public function testWhatEachStateMeans(): void
    {
        $those = static fn (callable $are): string => implode(' ', array_map(
            static fn (OrderState $one): string => $one->value,
            array_filter(OrderState::cases(), $are),
        ));
        self::assertSame('draft', $those(static fn (OrderState $one): bool => $one->isEditable()));
        self::assertSame(
            'draft awaiting-approval approved',
            $those(static fn (OrderState $one): bool => $one->isUnsent()),
        );
        self::assertSame(
            'sent acknowledged part-received',
            $those(static fn (OrderState $one): bool => $one->isOpen()),
        );
        self::assertSame('received closed cancelled', $those(static fn (OrderState $one): bool => $one->isSettled()));
        self::assertSame(['sent', 'acknowledged', 'part-received'], OrderState::openValues());
        self::assertSame('awaiting approval', OrderState::AwaitingApproval->words());
    }

    /** Incoterms 2020: who sells pays the main carriage from CFR on, and the duty with DDP only. */
    public function testWhoPaysTheWay(): void
    {
        $those = static fn (callable $are): string => implode(' ', array_map(
            static fn (Incoterm $one): string => $one->value,
            array_filter(Incoterm::cases(), $are),
        ));
        self::assertSame(
            'CFR CIF CPT CIP DAP DPU DDP',
            $those(static fn (Incoterm $one): bool => $one->sellerPaysCarriage()),
        );
        self::assertSame('DDP', $those(static fn (Incoterm $one): bool => $one->sellerPaysDuty()));
    }

    public function testARuleHasAPlace(): void
    {
        self::assertSame([Incoterm::FreeCarrier, 'Brenmoor Dock 2'], Incoterm::read('  fca   Brenmoor Dock 2 '));
        foreach (['XYZ Brenmoor' => '“XYZ” is no rule', 'FCA' => 'FCA needs a place', 'FCA  ' => 'FCA needs a place',
            '' => '“” is no rule'] as $typed => $words) {
            try {
                Incoterm::read($typed);
                self::fail('taken: '.$typed);
            } catch (InvalidValue $invalid) {
                self::assertStringContainsString($words, $invalid->getMessage());
            }
        }
    }

    public function testAnOrderComesOnTermsThatAreKnown(): void
    {
        $of = static fn (string $terms): string => Shipping::of(' Yard 7 ', ' Post ', ' Fair ', $terms, ['as ever'])
            ->deliveryTerms;
        self::assertSame('DAP Ferry Lane', $of(' dap Ferry Lane'));
        self::assertSame('as ever', $of(' as ever '));
        self::assertSame('', $of('  '));
        $shipping = Shipping::of(' Yard 7 ', ' Post ', ' Fair ', '', []);
        self::assertSame(['Yard 7', 'Post', 'Fair'], [$shipping->deliverTo, $shipping->carrier, $shipping->project]);
        $this->expectExceptionMessage('“as” is no rule');
        Shipping::of('', '', '', 'as ever', []);
    }
}
