<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Reference;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Gtin;
use TallBarrel\Core\Receiving\Gs1\Elements;
use TallBarrel\Core\Receiving\Gs1\ElementString;
use TallBarrel\Exchange\Labels\Gs1DataMatrix;

/** What our labels say, by the GS1 General Specifications and ISO/IEC 16022. */
final class LabelSymbolsTest extends TestCase
{
    private const GTIN = '09506000134352';

    /** The example of the GS1 General Specifications: GTIN, use by 31 March 2027, lot. */
    public function testWhatIsWrittenIsReadBackByOurOwnReader(): void
    {
        $today = new \DateTimeImmutable('2026-11-26');
        $written = Elements::of(Gtin::of(self::GTIN), 'X', 'ABC-1/2', new \DateTimeImmutable('2027-03-31'), 'S/N_7');
        self::assertSame('(01)09506000134352(17)270331(10)ABC-1/2(21)S/N_7', $written->readable());
        self::assertSame('01095060001343521727033110ABC-1/2'."\x1D".'21S/N_7', $written->carried("\x1D"));
        foreach ([$written->readable(), $written->carried("\x1D")] as $scanned) {
            $read = ElementString::read($scanned, $today);
            self::assertSame(
                [self::GTIN, 'ABC-1/2', 'S/N_7', '2027-03-31'],
                [$read->gtin?->digits, $read->lot, $read->serial, $read->useBy?->format('Y-m-d')],
            );
        }
        $ours = Elements::of(null, 'MED-WAX', 'L1');
        self::assertSame("10L1\x1D91MED-WAX", $ours->carried("\x1D"), 'none behind the last');
        self::assertSame('MED-WAX', ElementString::read($ours->carried("\x1D"), $today)->elements['91']);
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function unwritable(): iterable
    {
        yield 'a blank' => ['MED WAX', '', '(91) “MED WAX”'];
        yield 'a letter of another language' => ['WÄX', '', '(91)'];
        yield 'too long' => ['X', str_repeat('7', 21), '(10) “777777777777777777777”: longer than 20'];
    }

    #[DataProvider('unwritable')]
    public function testWhatNoSymbolHasIsNotWritten(string $code, string $lot, string $words): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage($words);
        Elements::of(null, $code, $lot);
    }

    /**
     * ISO/IEC 16022, annex of a worked example: “123456” is the codewords 142 164 186 (memory), here behind FNC1, 232.
     * “A1B2” has no two digits together. Symbols of these labels were read back by dmtxread 0.7.6 and zbarimg 0.23.
     */
    public function testTheCodewordsOfADataMatrix(): void
    {
        self::assertSame([232, 142, 164, 186], (new Gs1DataMatrix('123456'))->getHighLevelEncoding('123456'));
        self::assertSame([232, 66, 50, 67, 51], (new Gs1DataMatrix('A1B2'))->getHighLevelEncoding('A1B2'));
        self::assertSame([232, 131, 30], (new Gs1DataMatrix("01\x1D"))->getHighLevelEncoding("01\x1D"));
    }

    /** Left and below all dark, above and right every other one: ISO/IEC 16022, finder pattern. */
    public function testTheFrameOfADataMatrix(): void
    {
        $carried = Elements::of(Gtin::of(self::GTIN), '', 'ABC', new \DateTimeImmutable('2027-03-31'))->carried("\x1D");
        $modules = (new Gs1DataMatrix($carried))->modules();
        $size = count($modules);
        self::assertSame(18, $size, '17 codewords: 16 by 16 has room for 12, 18 by 18 for 18');
        self::assertSame(array_fill(0, $size, true), array_column($modules, 0));
        self::assertSame(array_fill(0, $size, true), $modules[$size - 1]);
        for ($n = 0; $n < $size; ++$n) {
            self::assertSame(0 === $n % 2, $modules[0][$n]);
            self::assertSame(1 === $n % 2, $modules[$n][$size - 1]);
        }
    }
}
