<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\VisitLength;

/** How long somebody stays signed in. */
final class VisitLengthTest extends TestCase
{
    /** @return iterable<string, array{int, int}> */
    public static function allowed(): iterable
    {
        yield 'the shortest' => [30, 1];
        yield 'the longest' => [1440, 720];
    }

    #[DataProvider('allowed')]
    public function testItsLimitsAreAllowed(int $idle, int $hours): void
    {
        $length = VisitLength::of($idle, $hours);
        self::assertSame([$idle, $hours], [$length->idleMinutes, $length->mostHours]);
    }

    /** @return iterable<string, array{int, int, string}> */
    public static function refused(): iterable
    {
        yield 'too short' => [29, 12, '29 minutes: say 30 to 1,440.'];
        yield 'too long without doing anything' => [1441, 12, '1441 minutes: say 30 to 1,440.'];
        yield 'no time at all' => [240, 0, '0 hours: say 1 to 720.'];
        yield 'more than thirty days' => [240, 721, '721 hours: say 1 to 720.'];
    }

    #[DataProvider('refused')]
    public function testWhatLiesBeyondIsRefusedByName(int $idle, int $hours, string $words): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage($words);
        VisitLength::of($idle, $hours);
    }

    /** OWASP ASVS 4.0.3, 3.3.2, level 2: twelve hours at the most; half a working day without doing anything. */
    public function testTheUsualLength(): void
    {
        self::assertSame([240, 12], [VisitLength::usual()->idleMinutes, VisitLength::usual()->mostHours]);
    }

    /** @return iterable<string, array{bool, string, string}> */
    public static function moments(): iterable
    {
        yield 'just now' => [false, '09:59:59', '10:00:00'];
        yield 'at the last second' => [false, '09:30:00', '10:00:00'];
        yield 'a second later' => [true, '09:29:59', '10:00:00'];
        yield 'busy to the last hour' => [false, '19:59:00', '20:00:00'];
        yield 'busy a second beyond' => [true, '20:00:00', '20:00:01'];
    }

    /** Begun at 8; half an hour without doing anything, twelve hours at the most. */
    #[DataProvider('moments')]
    public function testItEndsAfterAWhileWithoutDoingAnythingAndAtTheLatest(
        bool $over,
        string $seen,
        string $now,
    ): void {
        $at = static fn (string $time): \DateTimeImmutable => new \DateTimeImmutable('2027-03-01 '.$time);
        self::assertSame($over, VisitLength::of(30, 12)->isOver($at('08:00:00'), $at($seen), $at($now)));
    }

    public function testTwoAreAlikeWhereBothFiguresAre(): void
    {
        self::assertTrue(VisitLength::of(30, 12)->equals(VisitLength::of(30, 12)));
        self::assertFalse(VisitLength::of(30, 12)->equals(VisitLength::of(31, 12)));
        self::assertFalse(VisitLength::of(30, 12)->equals(VisitLength::of(30, 13)));
    }
}
