<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling\Books;

/** What an amount is booked on; under which number and name in the chart of accounts, the owner says. */
enum LedgerAccount: string
{
    case Stock = 'stock';
    /** Goods received, not invoiced. */
    case Received = 'received';
    case Payables = 'payables';
    case Tax = 'tax';
    /** Tax that we account for ourselves, as the supplier charges none. */
    case TaxOwed = 'tax-owed';
    /** Freight, duty and the like: on stock from its spread, off again with its invoice. */
    case Charges = 'charges';
    /** What taking goods in costs us, as it was put on them. */
    case Handling = 'handling';
    /** In our stock and the supplier's yet. */
    case Consigned = 'consigned';
    /** Paid to suppliers before goods came. */
    case Deposits = 'deposits';
    /** Sent back and not credited yet. */
    case Claims = 'claims';
    case Bank = 'bank';
    case CostOfSales = 'cost-of-sales';
    case Expense = 'expense';
    case PriceDifference = 'price-difference';
    case ExchangeDifference = 'exchange-difference';
    case StockDifference = 'stock-difference';
    case Discount = 'discount';
    case Opening = 'opening';

    public function words(): string
    {
        return match ($this) {
            self::Stock => 'stock',
            self::Received => 'goods received, not invoiced',
            self::Payables => 'payables',
            self::Tax => 'input tax',
            self::TaxOwed => 'tax we account for ourselves',
            self::Charges => 'charges on goods',
            self::Handling => 'handling put on goods',
            self::Consigned => 'goods on consignment',
            self::Deposits => 'deposits with suppliers',
            self::Claims => 'claims on suppliers',
            self::Bank => 'bank',
            self::CostOfSales => 'cost of sales and of what was used',
            self::Expense => 'expenses',
            self::PriceDifference => 'price differences',
            self::ExchangeDifference => 'exchange differences',
            self::StockDifference => 'counted, put right, scrapped',
            self::Discount => 'discounts for paying early',
            self::Opening => 'opening balance',
        };
    }
}
