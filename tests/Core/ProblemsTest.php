<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Problems;

/** What is wrong with what somebody typed. */
final class ProblemsTest extends TestCase
{
    public function testTheFirstReasonForAPlaceStands(): void
    {
        $problems = new Problems();
        self::assertTrue($problems->areNone());
        $problems->refuse('price', 'no number');
        $problems->refuse('price', 'too much');
        $problems->refuse('day', 'is over');
        self::assertSame(['price' => 'no number', 'day' => 'is over'], $problems->all());
        self::assertFalse($problems->areNone());
        self::assertTrue($problems->concern('price'));
        self::assertFalse($problems->concern('code'));
        self::assertSame(['is over', null], [$problems->at('day'), $problems->at('code')]);
    }

    public function testWhatIsRefusedIsNotedAndTheRestGoesOn(): void
    {
        $problems = new Problems();
        self::assertSame(7, $problems->attempt('fine', static fn (): int => 7));
        self::assertNull($problems->attempt('wrong', static fn (): int => throw InvalidValue::because('not so')));
        $done = [];
        $problems->apply('first', static function () use (&$done): void {
            $done[] = 'first';
        });
        $problems->apply('second', static fn () => throw InvalidValue::because('nor so'));
        self::assertSame(['first'], $done);
        self::assertSame(['wrong' => 'not so', 'second' => 'nor so'], $problems->all());
    }

    /** A mistake of ours is none of theirs. */
    public function testWhatIsNoRefusalIsNotNoted(): void
    {
        $problems = new Problems();
        $this->expectException(\LogicException::class);
        $problems->apply('place', static fn () => throw new \LogicException('ours'));
    }
}
