<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Exchange;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Console\Tester\CommandTester;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Exchange\Console\AwardCommand;
use TallBarrel\Exchange\Rates\ReferenceRates;

/** What sourcing takes in and gives out as files. */
final class SourcingTest extends TestCase
{
    public function testTheDocumentedExampleIsAwarded(): void
    {
        $tester = new CommandTester(new AwardCommand());
        self::assertSame(0, $tester->execute(['file' => dirname(__DIR__, 2).'/docs/award-example.json']));
        $answer = json_decode($tester->getDisplay(), true, flags: \JSON_THROW_ON_ERROR);
        self::assertIsArray($answer);
        // By hand: all from Vetrasol is 480 × 0.62 + 40 × 9.30, free freight above 500, one order of 3: 672.60.
        self::assertSame(['jars' => 'VETRASOL', 'syrup' => 'VETRASOL'], $answer['assignment']);
        self::assertSame([672.6, true], [$answer['cost'], $answer['proven_best']]);
    }

    #[DataProvider('mistakes')]
    public function testAMistakeInTheFileIsNamed(string $json, string $words): void
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'award');
        file_put_contents($file, $json);
        $tester = new CommandTester(new AwardCommand());
        self::assertSame(1, $tester->execute(['file' => $file]));
        self::assertStringContainsString($words, $tester->getDisplay());
    }

    /** @return iterable<array{string, string}> */
    public static function mistakes(): iterable
    {
        yield ['{', 'This is not JSON'];
        yield ['{"lines": {"a": {"quantity": 1, "offers": {"X": {"prices": "1"}}}}}', 'there is no supplier “X”'];
        yield ['{"suppliers": {"X": {}}, "lines": {"a": {"offers": {}}}}', 'line “a” has no quantity'];
        yield ['{"suppliers": {"X": {"order_cost": "three"}}}', '“order_cost” in supplier “X” is "three"'];
        yield [
            '{"suppliers": {"X": {}}, "lines": {"a": {"quantity": 1, "offers": {"X": {"prices": "1=2 5=3"}}}}}',
            'From 5 on the price rises from 2 to 3',
        ];
    }

    public function testReferenceRatesAsXmlAndAsCsv(): void
    {
        // The layout of the European Central Bank's euro foreign exchange reference rates; the figures are made up.
        $xml =
            '<?xml version="1.0" encoding="UTF-8"?><gesmes:Envelope '
            .'xmlns:gesmes="http://www.gesmes.org/xml/2002-08-01" '
                .'xmlns="http://www.ecb.int/vocabulary/2002-08-01/eurofxref"><gesmes:subject>Reference '
                    .'rates</gesmes:subject><Cube><Cube time="2026-11-20"><Cube currency="USD" rate="1.0840"/><Cube '
                        .'currency="JPY" rate="161.50"/></Cube><Cube time="2026-11-19"><Cube currency="USD" '
                            .'rate="1.0810"/></Cube></Cube></gesmes:Envelope>';
        self::assertTrue(ReferenceRates::looksLikeOne($xml));
        self::assertSame(
            ['2026-11-20' => ['USD' => '1.0840', 'JPY' => '161.50'], '2026-11-19' => ['USD' => '1.0810']],
            ReferenceRates::read($xml),
        );
        $csv = "Date,USD,JPY,CYP,\n2026-11-20,1.0840,161.50,N/A,\n2026-11-19,1.0810,160.9,N/A,\n";
        self::assertTrue(ReferenceRates::looksLikeOne($csv));
        self::assertSame('160.9', ReferenceRates::read($csv)['2026-11-19']['JPY']);
        self::assertFalse(ReferenceRates::looksLikeOne("currency,day,rate\nGBP,2026-11-20,0.86\n"));
    }

    public function testARateThatIsNoneIsNamed(): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage('The rate of USD on “2026-11-20” is “zero”');
        ReferenceRates::read("Date,USD\n2026-11-20,zero\n");
    }
}
