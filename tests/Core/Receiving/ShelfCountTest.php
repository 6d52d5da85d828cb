<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Receiving;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Receiving\ShelfCount;

final class ShelfCountTest extends TestCase
{
    #[TestWith(['100', '100', true, false], 'right')]
    #[TestWith(['100', '105', false, false], 'at the tolerance')]
    #[TestWith(['100', '94', false, true], 'beyond it')]
    #[TestWith(['3', '2', false, false], 'one of few is no reason to count again')]
    #[TestWith(['3', '1', false, true], 'two of few')]
    #[TestWith(['0', '2', false, true], 'where nothing should be')]
    #[TestWith(['-4', '0', false, true], 'where less than nothing stands')]
    public function testWhatIsFarOffIsCountedOnceMore(
        string $stands,
        string $counted,
        bool $right,
        bool $doubtful,
    ): void {
        $count = new ShelfCount(BigDecimal::of($stands), BigDecimal::of($counted));
        self::assertSame($right, $count->isRight());
        self::assertSame($doubtful, $count->isDoubtful());
    }
}
