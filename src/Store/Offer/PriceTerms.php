<?php

declare(strict_types=1);

namespace TallBarrel\Store\Offer;

use Symfony\Contracts\Service\ResetInterface;
use TallBarrel\Core\Sourcing\AgreedKind;
use TallBarrel\Core\Sourcing\AgreedPrice;
use TallBarrel\Core\Sourcing\AgreedPrices;
use TallBarrel\Core\Sourcing\AgreedScope;
use TallBarrel\Core\Sourcing\BreakBasis;
use TallBarrel\Store\OfToday;

/** What was agreed beyond single offers, as it holds today; read once a request. */
final class PriceTerms implements ResetInterface
{
    private ?AgreedPrices $today = null;

    public function __construct(private readonly OfToday $ofToday)
    {
    }

    /** Of two alike in scope the one that began last holds. */
    public function today(): AgreedPrices
    {
        return $this->today ??= $this->read();
    }

    private function read(): AgreedPrices
    {
        /**
         * @var list<array{id: string, name: string, supplier_id: string|null, supplier_group: string,
         *      item_id: string|null, item_group: string, kind: string, basis: string, currency: string,
         *      steps: string}> $rows
         */
        $rows = $this->ofToday->read(OfToday::TERMS);
        $id = static fn (?string $id): ?int => null === $id ? null : (int) $id;

        return AgreedPrices::of(array_map(
            static fn (array $row): AgreedPrice => AgreedPrice::read(
                (int) $row['id'],
                AgreedScope::of(
                    $id($row['supplier_id']),
                    $row['supplier_group'],
                    $id($row['item_id']),
                    $row['item_group'],
                ),
                AgreedKind::from($row['kind']),
                BreakBasis::from($row['basis']),
                $row['currency'],
                $row['steps'],
                $row['name'],
            ),
            $rows,
        ));
    }

    /** Where one was added or changed, what was read before no longer counts. */
    public function reset(): void
    {
        $this->today = null;
        $this->ofToday->reset();
    }
}
