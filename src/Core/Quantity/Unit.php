<?php

declare(strict_types=1);

namespace TallBarrel\Core\Quantity;

use Brick\Math\BigDecimal;
use Brick\Math\BigRational;
use Brick\Math\RoundingMode;
use TallBarrel\Core\InvalidValue;

/**
 * A unit of measure, by its code in UN/ECE Recommendation 20: those that goods are traded in.
 *
 * Conversion factors are exact. Avoirdupois weights and lengths follow from the international yard and pound
 * agreement of 1959, United States volumes from the gallon of 231 cubic inches, imperial ones from the gallon of
 * 4.54609 litres; see NIST Special Publication 811, appendix B.
 */
enum Unit: string
{
    case Each = 'EA';
    case Piece = 'H87';
    case One = 'C62';
    case Pair = 'PR';
    case Dozen = 'DZN';
    case DozenPieces = 'DPC';
    case DozenPairs = 'DPR';
    case Score = 'SCO';
    case Hundred = 'CEN';
    case Gross = 'GRO';
    case Thousand = 'MIL';
    case Set = 'SET';
    case Kilogram = 'KGM';
    case Gram = 'GRM';
    case Milligram = 'MGM';
    case Hectogram = 'HGM';
    case Hundredweight = 'DTN';
    case Tonne = 'TNE';
    case Grain = 'GRN';
    case Ounce = 'ONZ';
    case TroyOunce = 'APZ';
    case Pound = 'LBR';
    case Stone = 'STI';
    case HundredweightUs = 'CWA';
    case HundredweightUk = 'CWI';
    case TonUs = 'STN';
    case TonUk = 'LTN';
    case Litre = 'LTR';
    case Millilitre = 'MLT';
    case Centilitre = 'CLT';
    case Decilitre = 'DLT';
    case Hectolitre = 'HLT';
    case CubicCentimetre = 'CMQ';
    case CubicDecimetre = 'DMQ';
    case CubicMetre = 'MTQ';
    case FluidOunceUs = 'OZA';
    case PintUs = 'PTL';
    case QuartUs = 'QTL';
    case GallonUs = 'GLL';
    case FluidOunceUk = 'OZI';
    case PintUk = 'PTI';
    case QuartUk = 'QTI';
    case GallonUk = 'GLI';
    case CubicInch = 'INQ';
    case CubicFoot = 'FTQ';
    case Metre = 'MTR';
    case Millimetre = 'MMT';
    case Centimetre = 'CMT';
    case Decimetre = 'DMT';
    case Kilometre = 'KMT';
    case Inch = 'INH';
    case Foot = 'FOT';
    case Yard = 'YRD';
    case SquareMetre = 'MTK';
    case SquareCentimetre = 'CMK';
    case SquareDecimetre = 'DMK';
    case SquareInch = 'INK';
    case SquareFoot = 'FTK';
    case SquareYard = 'YDK';
    case Hectare = 'HAR';
    case Hour = 'HUR';

    /** What people write for a unit in English, German, French and Polish lists (common practice, no source). */
    private const WORDS = [
        'EA' => 'each pc pce pce. pcs. piece pieces unit stk stk. stck stck. stück stueck pièce pièces szt szt. sztuka',
        'PR' => 'pair paar paire para',
        'DZN' => 'doz dz dtzd dutzend douzaine tuzin',
        'SET' => 'set satz jeu zestaw',
        'KGM' => 'kgs kilo kilos kilogram kilograms kilogramm kilogramme kilogrammes',
        'GRM' => 'gram grams gramm gramme grammes',
        'TNE' => 'tonne tonnes tona',
        'LBR' => 'lbs pound pounds',
        'ONZ' => 'ounce ounces',
        'LTR' => 'ltr liter liters litre litres litr',
        'MLT' => 'milliliter millilitre',
        'MTR' => 'meter meters metre metres mètre mètres metr',
        'CMT' => 'centimeter centimetre',
        'MMT' => 'millimeter millimetre',
        'MTK' => 'qm m2',
        'CMK' => 'cm2',
        'MTQ' => 'cbm m3',
        'CMQ' => 'ccm cm3',
        'HUR' => 'hr hrs hour hours std std. stunde stunden heure heures',
    ];

    /** Symbols that mean one thing here and another there: stone or Stück, grain or gram. */
    private const AMBIGUOUS = ['st', 'gr'];

    /**
     * The unit a person or a file means: by its code, by its symbol, or by a word of everyday lists.
     *
     * @throws InvalidValue if it is none of these, or could be two
     */
    public static function fromText(string $text): self
    {
        $word = mb_strtolower(trim($text));

        return self::tryFrom(strtoupper(trim($text))) ??
            self::byWord()[$word] ??
            throw InvalidValue::because(
                sprintf('“%s” is not a unit code or known unit; write EA or each, KGM or kg, LTR or litre.', $text),
            );
    }

    /** @return array<string, self> */
    private static function byWord(): array
    {
        static $units = [];
        if ([] === $units) {
            foreach (self::cases() as $unit) {
                foreach ([$unit->symbol(), ...explode(' ', self::WORDS[$unit->value] ?? '')] as $word) {
                    // Of two units with one symbol the plainer one stands first: each, dozen.
                    $units[mb_strtolower($word)] ??= $unit;
                }
            }
            $units = array_diff_key($units, array_flip(['', ...self::AMBIGUOUS]));
        }

        return $units;
    }

    /** How the unit is written beside a figure. */
    public function symbol(): string
    {
        return $this->facts()[0];
    }

    /** Whether part of one is a sensible amount to count. */
    public function isDivisible(): bool
    {
        return !in_array($this->facts()[1], ['count', 'set'], true);
    }

    /** @return list<self> the others that measure the same thing */
    public function convertible(): array
    {
        return array_values(
            array_filter(
                self::cases(),
                fn (self $other): bool => $other !== $this && $other->facts()[1] === $this->facts()[1],
            ),
        );
    }

    /**
     * How many of the other unit one of this unit is.
     *
     * @throws InvalidValue if the two do not measure the same thing
     */
    public function factorTo(self $other): BigRational
    {
        [, $kind, $size] = $this->facts();
        [, $otherKind, $otherSize] = $other->facts();
        if ($kind !== $otherKind) {
            throw InvalidValue::because(
                sprintf(
                    '%s cannot be converted to %s: one is a %s, the other a %s.',
                    $this->value,
                    $other->value,
                    $kind,
                    $otherKind,
                ),
            );
        }

        return BigRational::of($size)->dividedBy($otherSize);
    }

    /**
     * So much of another unit, in this one, to six decimals.
     *
     * @throws InvalidValue if the two do not measure the same thing
     */
    public function amountOf(BigDecimal $amount, self $other): BigDecimal
    {
        return $other
            ->factorTo($this)
            ->multipliedBy($amount)
            ->toScale(6, RoundingMode::HalfUp)
            ->strippedOfTrailingZeros();
    }

    /** @return array{string, string, numeric-string} symbol, what it measures, and its size in the base unit of that */
    private function facts(): array
    {
        return match ($this) {
            self::Each => ['pcs', 'count', '1'],
            self::Piece => ['pcs', 'count', '1'],
            self::One => ['pcs', 'count', '1'],
            self::Pair => ['pairs', 'count', '2'],
            self::Dozen => ['dozen', 'count', '12'],
            self::DozenPieces => ['dozen', 'count', '12'],
            self::DozenPairs => ['dozen pairs', 'count', '24'],
            self::Score => ['score', 'count', '20'],
            self::Hundred => ['hundred', 'count', '100'],
            self::Gross => ['gross', 'count', '144'],
            self::Thousand => ['thousand', 'count', '1000'],
            self::Set => ['sets', 'set', '1'],
            self::Kilogram => ['kg', 'mass', '1'],
            self::Gram => ['g', 'mass', '0.001'],
            self::Milligram => ['mg', 'mass', '0.000001'],
            self::Hectogram => ['hg', 'mass', '0.1'],
            self::Hundredweight => ['dt', 'mass', '100'],
            self::Tonne => ['t', 'mass', '1000'],
            self::Grain => ['gr', 'mass', '0.00006479891'],
            self::Ounce => ['oz', 'mass', '0.028349523125'],
            self::TroyOunce => ['oz t', 'mass', '0.0311034768'],
            self::Pound => ['lb', 'mass', '0.45359237'],
            self::Stone => ['st', 'mass', '6.35029318'],
            self::HundredweightUs => ['cwt (US)', 'mass', '45.359237'],
            self::HundredweightUk => ['cwt (UK)', 'mass', '50.80234544'],
            self::TonUs => ['ton (US)', 'mass', '907.18474'],
            self::TonUk => ['ton (UK)', 'mass', '1016.0469088'],
            self::Litre => ['l', 'volume', '1'],
            self::Millilitre => ['ml', 'volume', '0.001'],
            self::Centilitre => ['cl', 'volume', '0.01'],
            self::Decilitre => ['dl', 'volume', '0.1'],
            self::Hectolitre => ['hl', 'volume', '100'],
            self::CubicCentimetre => ['cm³', 'volume', '0.001'],
            self::CubicDecimetre => ['dm³', 'volume', '1'],
            self::CubicMetre => ['m³', 'volume', '1000'],
            self::FluidOunceUs => ['fl oz (US)', 'volume', '0.0295735295625'],
            self::PintUs => ['pt (US)', 'volume', '0.473176473'],
            self::QuartUs => ['qt (US)', 'volume', '0.946352946'],
            self::GallonUs => ['gal (US)', 'volume', '3.785411784'],
            self::FluidOunceUk => ['fl oz (UK)', 'volume', '0.0284130625'],
            self::PintUk => ['pt (UK)', 'volume', '0.56826125'],
            self::QuartUk => ['qt (UK)', 'volume', '1.1365225'],
            self::GallonUk => ['gal (UK)', 'volume', '4.54609'],
            self::CubicInch => ['in³', 'volume', '0.016387064'],
            self::CubicFoot => ['ft³', 'volume', '28.316846592'],
            self::Metre => ['m', 'length', '1'],
            self::Millimetre => ['mm', 'length', '0.001'],
            self::Centimetre => ['cm', 'length', '0.01'],
            self::Decimetre => ['dm', 'length', '0.1'],
            self::Kilometre => ['km', 'length', '1000'],
            self::Inch => ['in', 'length', '0.0254'],
            self::Foot => ['ft', 'length', '0.3048'],
            self::Yard => ['yd', 'length', '0.9144'],
            self::SquareMetre => ['m²', 'area', '1'],
            self::SquareCentimetre => ['cm²', 'area', '0.0001'],
            self::SquareDecimetre => ['dm²', 'area', '0.01'],
            self::SquareInch => ['in²', 'area', '0.00064516'],
            self::SquareFoot => ['ft²', 'area', '0.09290304'],
            self::SquareYard => ['yd²', 'area', '0.83612736'],
            self::Hectare => ['ha', 'area', '10000'],
            self::Hour => ['h', 'time', '1'],
        };
    }

    /** As much as can be counted in it: whole ones, or tenths of what can be divided. */
    public function count(float $amount, RoundingMode $mode): BigDecimal
    {
        // A ten-thousandth of a unit is a rounding error of the floats, not demand.
        return BigDecimal::of(number_format($amount, 4, '.', ''))->toScale($this->isDivisible() ? 1 : 0, $mode);
    }
}
