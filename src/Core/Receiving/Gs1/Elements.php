<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving\Gs1;

use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Gtin;

/**
 * What a symbol is to say, in the order in which it is written: the GTIN first, then what is always as long, then the
 * rest. Source: GS1 General Specifications, 7.8 (element strings, FNC1 after what may be shorter unless it is last).
 */
final readonly class Elements
{
    /** A symbol of ours, where there is no GTIN; company internal information. */
    public const OUR_CODE = '91';

    /** @param list<array{Identifier, string}> $elements */
    private function __construct(private array $elements)
    {
    }

    /**
     * @param string $code our own, where there is no GTIN
     *
     * @throws InvalidValue if something of it cannot be written in such a symbol
     */
    public static function of(
        ?Gtin $gtin,
        string $code,
        string $lot = '',
        ?\DateTimeImmutable $useBy = null,
        string $serial = '',
    ): self {
        $said = [
            '01' => null === $gtin ? '' : str_pad($gtin->digits, 14, '0', \STR_PAD_LEFT),
            '17' => $useBy?->format('ymd') ?? '',
            '10' => $lot,
            '21' => $serial,
            self::OUR_CODE => null === $gtin ? $code : '',
        ];
        $elements = [];
        foreach ($said as $digits => $value) {
            if ('' === $value) {
                continue;
            }
            $identifier = Identifier::at((string) $digits) ?? throw new \LogicException('No such identifier.');
            ElementString::mustBeWritable($identifier, $value);
            $elements[] = [$identifier, $value];
        }

        return new self($elements);
    }

    /** As people read it beside the symbol: "(01)09506000134352(10)ABC". */
    public function readable(): string
    {
        return implode('', array_map(
            static fn (array $element): string => '('.$element[0]->digits.')'.$element[1],
            $this->elements,
        ));
    }

    /**
     * What the symbol carries, without the mark in front that says that it is one of GS1.
     *
     * @param string $separator what stands for FNC1 behind what may be shorter
     */
    public function carried(string $separator): string
    {
        $text = '';
        foreach ($this->elements as $n => [$identifier, $value]) {
            $text .= $identifier->digits.$value;
            if (!$identifier->isFixed && $n < array_key_last($this->elements)) {
                $text .= $separator;
            }
        }

        return $text;
    }
}
