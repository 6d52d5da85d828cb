<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Labels;

/**
 * A DataMatrix that begins with FNC1, which says that it is one of GS1. The library below writes none; what follows the
 * mark is in its plain encodation: two digits or one character a codeword (ISO/IEC 16022, 5.2.3; GS1 General
 * Specifications, 5.6).
 */
final class Gs1DataMatrix extends \Datamatrix
{
    private const FNC1 = 232;
    private const TWO_DIGITS = 130;

    /**
     * @param string $data characters below 128
     *
     * @return list<int>
     */
    public function getHighLevelEncoding($data): array
    {
        $words = [self::FNC1];
        $this->last_enc = ENC_ASCII;
        for ($i = 0, $length = strlen($data); $i < $length; ++$i) {
            $two = substr($data, $i, 2);
            if (2 === strlen($two) && ctype_digit($two)) {
                $words[] = (int) $two + self::TWO_DIGITS;
                ++$i;
            } else {
                $words[] = ord($data[$i]) + 1;
            }
        }

        return $words;
    }

    /** @return list<list<bool>> rows of dark and light modules; none if there is too much for one symbol */
    public function modules(): array
    {
        /** @var array{bcode?: array<int, array<int, int|string>>} $code */
        $code = $this->getBarcodeArray();
        $rows = $code['bcode'] ?? [];

        return array_map(
            static fn (array $row): array => array_map(static fn (int|string $one): bool => 1 === (int) $one,
                array_values($row)),
            array_values($rows),
        );
    }
}
