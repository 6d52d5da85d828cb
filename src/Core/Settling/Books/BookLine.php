<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling\Books;

use Brick\Math\BigDecimal;

/** One side of an entry: above zero it is a debit, below a credit. */
final readonly class BookLine
{
    /** @param BigDecimal $amount home currency, to the cent */
    public function __construct(public LedgerAccount $account, public BigDecimal $amount)
    {
    }

    public function debit(): ?BigDecimal
    {
        return $this->amount->isPositive() ? $this->amount : null;
    }

    public function credit(): ?BigDecimal
    {
        return $this->amount->isNegative() ? $this->amount->negated() : null;
    }
}
