<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Currency;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Offer\PriceListLine;

/** The file in which a supplier lists its prices. */
interface PriceListFormat
{
    /** @return array<string, string> what stands in each column; a star marks those that are needed */
    public function columns(): array;

    /**
     * @param array<string, string> $known our column by heading in small letters, as people said before
     *
     * @throws InvalidValue if it is no table at all
     */
    public function headings(string $file, array $known): ListHeadings;

    /**
     * @param array<string, string>                          $mapping  our column by heading in small letters
     * @param Currency                                       $currency the prices must be in
     * @param list<array{int, string, string, string}>       $problems line, column, value, what is wrong; added to
     * @param list<string>                                   $unread   codes of lines that cannot be used; added to
     *
     * @return \Iterator<mixed, PriceListLine> each code once, its breaks put together
     *
     * @throws InvalidValue if it is not such a file at all, or a column that is needed is missing
     */
    public function read(
        string $file,
        array $mapping,
        Currency $currency,
        array &$problems,
        array &$unread,
    ): \Iterator;

    /**
     * @param list<Offer> $offers of one supplier
     *
     * @return string the file that would leave all of them as they are
     */
    public function write(array $offers): string;
}
