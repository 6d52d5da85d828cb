<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Settling;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Settling\Paper\BrokenRule;
use TallBarrel\Core\Settling\Paper\InvoiceRules;
use TallBarrel\Core\Settling\Paper\PaperCharge;
use TallBarrel\Core\Settling\Paper\PaperInvoice;
use TallBarrel\Core\Settling\Paper\PaperLine;
use TallBarrel\Core\Settling\Paper\PaperTax;
use TallBarrel\Core\Settling\Paper\PaperTotals;

/**
 * Rules of EN 16931-1:2017, 6.4, one by one, where no file is needed: ten packs at 10.00, carriage of 5.00, 5.00 off,
 * all at 23 %, so that 100.00 without tax are 123.00 with it. Numbers of the rules are from memory of its table.
 */
final class PaperRulesTest extends TestCase
{
    private static function amount(?string $amount): ?BigDecimal
    {
        return null === $amount ? null : BigDecimal::of($amount);
    }

    /** @param array<string, string|null> $with */
    private static function line(array $with = []): PaperLine
    {
        $is = $with + ['id' => '1', 'name' => 'Jar', 'quantity' => '10', 'unit' => 'EA', 'net' => '100',
            'price' => '10', 'per' => '1', 'less' => '0', 'more' => '0', 'category' => 'S', 'percent' => '23'];

        return new PaperLine(
            (string) $is['id'],
            (string) $is['name'],
            self::amount($is['quantity']),
            (string) $is['unit'],
            self::amount($is['net']),
            self::amount($is['price']),
            BigDecimal::of((string) $is['per']),
            BigDecimal::of((string) $is['less']),
            BigDecimal::of((string) $is['more']),
            (string) $is['category'],
            self::amount($is['percent']),
        );
    }

    private static function charge(
        bool $isCharge,
        ?string $amount = '5',
        string $reason = 'as agreed',
        string $category = 'S',
        ?string $percent = '23',
    ): PaperCharge {
        return new PaperCharge($isCharge, self::amount($amount), $reason, $category, self::amount($percent));
    }

    private static function tax(
        ?string $taxable = '100',
        ?string $amount = '23',
        string $category = 'S',
        ?string $percent = '23',
        string $why = '',
    ): PaperTax {
        return new PaperTax(self::amount($taxable), self::amount($amount), $category, self::amount($percent), $why);
    }

    /** @param array<string, string|null> $with */
    private static function totals(array $with = []): PaperTotals
    {
        $is = $with + ['lines' => '100', 'less' => '5', 'more' => '5', 'withoutTax' => '100', 'tax' => '23',
            'withTax' => '123', 'prepaid' => null, 'rounding' => null, 'payable' => '123'];

        return new PaperTotals(...array_map(self::amount(...), $is));
    }

    /**
     * @param list<PaperLine>|null   $lines
     * @param list<PaperCharge>|null $charges
     * @param list<PaperTax>|null    $taxes
     *
     * @return list<string> rules that are broken
     */
    private static function broken(
        ?array $lines = null,
        ?array $charges = null,
        ?array $taxes = null,
        ?PaperTotals $totals = null,
        string $type = '380',
        string $dueOn = '2027-01-31',
        string $terms = '',
        string $currency = 'EUR',
    ): array {
        $paper = new PaperInvoice(
            'V-1',
            '2027-01-01',
            $type,
            $currency,
            'PO-1',
            $dueOn,
            $terms,
            'Vetrasol Glassworks',
            '',
            'Larkmoor Bee Supply',
            '',
            '',
            $totals ?? self::totals(),
            $lines ?? [self::line()],
            $charges ?? [self::charge(true), self::charge(false)],
            $taxes ?? [self::tax()],
        );

        return array_map(static fn (BrokenRule $rule): string => $rule->rule, InvoiceRules::broken($paper));
    }

    public function testAValidOneBreaksNone(): void
    {
        self::assertSame([], self::broken());
        self::assertSame([], self::broken(dueOn: '', terms: '30 days'), 'terms say when');
        self::assertSame([], self::broken(dueOn: '', type: '381'), 'a credit note asks for nothing');
        self::assertSame([], self::broken(
            dueOn: '',
            totals: self::totals(['prepaid' => '123', 'payable' => '0']),
        ), 'nothing is left to pay');
    }

    public function testSomethingToPaySaysByWhen(): void
    {
        self::assertSame(['BR-CO-25'], self::broken(dueOn: ''));
        self::assertSame(['BR-CO-25'], self::broken(
            dueOn: '',
            totals: self::totals(['prepaid' => '122.99', 'payable' => '0.01']),
        ));
    }

    public function testWhatIsNoCurrencyIsNamed(): void
    {
        self::assertSame(['BR-CL-04'], self::broken(currency: 'EUX'));
    }

    /** @return iterable<string, array{array<string, string|null>, list<string>}> */
    public static function lines(): iterable
    {
        yield 'no number' => [['id' => ''], ['BR-21']];
        yield 'no quantity' => [['quantity' => null], ['BR-22']];
        yield 'no unit' => [['unit' => ''], ['BR-23']];
        yield 'no amount' => [['net' => null], ['BR-24', 'BR-CO-10', 'BR-S-08']];
        yield 'no name' => [['name' => ''], ['BR-25']];
        yield 'no price' => [['price' => null], ['BR-26']];
        yield 'no category' => [['category' => ''], ['BR-CO-04', 'BR-S-08']];
        yield 'a category of another world' => [['category' => 'XX'], ['BR-CL-17', 'BR-S-08']];
        yield 'a rate of nothing' => [['percent' => '0'], ['BR-S-05', 'BR-S-08']];
        yield 'a rate that is not told' => [['percent' => null], ['BR-S-05', 'BR-S-08']];
        yield 'less and more on the line' => [['price' => '9.8', 'less' => '1', 'more' => '3'], []];
        yield 'a cent off' => [['price' => '10.001'], []];
        yield 'more than a cent off' => [['price' => '10.002'], ['BT-131']];
        yield 'by the hundred' => [['price' => '1000', 'per' => '100'], []];
        yield 'by nothing, which nobody can reckon with' => [['price' => '7', 'per' => '0'], []];
    }

    /**
     * @param array<string, string|null> $with
     * @param list<string>               $rules
     */
    #[DataProvider('lines')]
    public function testALineIsHeldToItsRules(array $with, array $rules): void
    {
        self::assertSame($rules, self::broken([self::line($with)]));
    }

    /** @return iterable<string, array{list<PaperCharge>, list<string>}> */
    public static function charges(): iterable
    {
        $other = [self::charge(true), self::charge(false)];
        yield 'a charge of no amount' => [[self::charge(true, null), $other[1]], ['BR-36', 'BR-CO-12', 'BR-S-08']];
        yield 'an allowance of no amount' => [[$other[0], self::charge(false, null)], ['BR-31', 'BR-CO-11', 'BR-S-08']];
        yield 'a charge of no category' => [[self::charge(true, category: ''), $other[1]], ['BR-37', 'BR-S-08']];
        yield 'an allowance of no category' => [[$other[0], self::charge(false, category: '')], ['BR-32', 'BR-S-08']];
        yield 'a charge of no reason' => [[self::charge(true, reason: ''), $other[1]], ['BR-CO-22']];
        yield 'an allowance of no reason' => [[$other[0], self::charge(false, reason: '')], ['BR-CO-21']];
        yield 'a charge of parts of a cent' => [
            [self::charge(true, '5.001'), $other[1]], ['BR-DEC-05', 'BR-CO-12', 'BR-S-08'],
        ];
        yield 'an allowance of parts of a cent' => [
            [$other[0], self::charge(false, '5.001')], ['BR-DEC-01', 'BR-CO-11', 'BR-S-08'],
        ];
        yield 'a charge at another rate' => [[self::charge(true, percent: '0'), $other[1]], ['BR-S-07', 'BR-S-08']];
        yield 'an allowance at another rate' => [
            [$other[0], self::charge(false, percent: '0')], ['BR-S-06', 'BR-S-08'],
        ];
        yield 'trailing zeros are no parts of a cent' => [[self::charge(true, '5.000'), $other[1]], []];
    }

    /**
     * @param list<PaperCharge> $charges
     * @param list<string>      $rules
     */
    #[DataProvider('charges')]
    public function testChargesAndAllowancesAreHeldToTheirs(array $charges, array $rules): void
    {
        self::assertSame($rules, self::broken(charges: $charges));
    }

    /** @return iterable<string, array{array<string, string|null>, list<string>}> */
    public static function sums(): iterable
    {
        yield 'no sum of the lines' => [['lines' => null], ['BR-12']];
        yield 'no sum without tax' => [['withoutTax' => null], ['BR-13']];
        yield 'no sum with tax' => [['withTax' => null], ['BR-14']];
        yield 'nothing to pay said' => [['payable' => null], ['BR-15']];
        yield 'allowances not said' => [['less' => null], ['BR-CO-11', 'BR-CO-13']];
        yield 'charges not said' => [['more' => null], ['BR-CO-12', 'BR-CO-13']];
        yield 'tax not said' => [['tax' => null], ['BR-CO-14', 'BR-CO-15']];
        yield 'paid before' => [['prepaid' => '23', 'payable' => '100'], []];
        yield 'paid before and not taken off' => [['prepaid' => '23'], ['BR-CO-16']];
        yield 'rounded' => [['rounding' => '0.02', 'payable' => '123.02'], []];
        yield 'rounded and not said' => [['payable' => '123.02'], ['BR-CO-16']];
    }

    /**
     * @param array<string, string|null> $with
     * @param list<string>               $rules
     */
    #[DataProvider('sums')]
    public function testSumsAreHeldToTheirs(array $with, array $rules): void
    {
        self::assertSame($rules, self::broken(totals: self::totals($with)));
    }

    /** @return iterable<string, array{list<PaperTax>, list<string>}> */
    public static function taxes(): iterable
    {
        yield 'no breakdown' => [[], ['BR-CO-14', 'BR-CO-18']];
        yield 'what is taxed not said' => [[self::tax(null)], ['BR-45']];
        yield 'no amount' => [[self::tax(amount: null)], ['BR-CO-14', 'BR-46']];
        yield 'no category' => [[self::tax(category: '')], ['BR-47']];
        yield 'no rate' => [[self::tax(percent: null)], ['BR-48', 'BR-CO-17', 'BR-S-08']];
        yield 'parts of a cent taxed' => [[self::tax('100.001')], ['BR-DEC-19', 'BR-S-08']];
        yield 'parts of a cent of tax' => [[self::tax(amount: '23.001')], ['BR-CO-14', 'BR-DEC-20']];
        yield 'a cent off, which rounding explains' => [[self::tax(amount: '23.01')], ['BR-CO-14']];
        yield 'two cents off' => [[self::tax(amount: '23.02')], ['BR-CO-14', 'BR-CO-17']];
        yield 'a category of another world' => [[self::tax(category: 'XX')], []];
    }

    /**
     * @param list<PaperTax> $taxes
     * @param list<string>   $rules
     */
    #[DataProvider('taxes')]
    public function testTheBreakdownIsHeldToIts(array $taxes, array $rules): void
    {
        self::assertSame($rules, self::broken(taxes: $taxes));
    }

    /** @return iterable<string, array{string, string|null, string, list<string>}> */
    public static function untaxed(): iterable
    {
        yield 'zero rated needs no reason' => ['Z', '0', '', []];
        yield 'exempt says why' => ['E', '0', 'article 132', []];
        yield 'exempt does not' => ['E', '0', '', ['BR-E-10']];
        yield 'reverse charge does not' => ['AE', '0', '', ['BR-AE-10']];
        yield 'from another member state, called IC' => ['K', '0', '', ['BR-IC-10']];
        yield 'another member state at a rate' => ['K', '5', 'article 138', ['BR-IC-05', 'BR-CO-17']];
        yield 'outside the scope has no rate' => ['O', null, 'no business', []];
        yield 'outside the scope at a rate' => ['O', '5', 'no business', ['BR-O-05', 'BR-CO-17']];
        yield 'imported at a rate' => ['G', '5', 'article 146', ['BR-G-05', 'BR-CO-17']];
    }

    /** @param list<string> $rules */
    #[DataProvider('untaxed')]
    public function testWhereThereIsNoTaxItSaysWhy(string $category, ?string $percent, string $why, array $rules): void
    {
        self::assertSame($rules, self::broken(
            [self::line(['category' => $category, 'percent' => $percent])],
            [],
            [self::tax('100', '0', $category, $percent, $why)],
            self::totals(['less' => null, 'more' => null, 'tax' => null, 'withTax' => '100', 'payable' => '100']),
        ));
    }
}
