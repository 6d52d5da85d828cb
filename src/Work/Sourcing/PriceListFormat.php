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
     * @param Currency                                       $currency the prices must be in
     * @param list<array{int, string, string, string}>       $problems line, column, value, what is wrong; added to
     * @param list<string>                                   $unread   codes of lines that cannot be used; added to
     *
     * @return \Iterator<mixed, PriceListLine> each code once, its breaks put together
     *
     * @throws InvalidValue if it is not such a file at all
     */
    public function read(string $file, Currency $currency, array &$problems, array &$unread): \Iterator;

    /**
     * @param list<Offer> $offers of one supplier
     *
     * @return string the file that would leave all of them as they are
     */
    public function write(array $offers): string;
}
