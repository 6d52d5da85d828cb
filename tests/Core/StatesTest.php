<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Money\TaxCategory;
use TallBarrel\Core\Ordering\RequisitionState;
use TallBarrel\Core\Receiving\ReturnState;
use TallBarrel\Core\Receiving\ReturnWish;
use TallBarrel\Core\Receiving\TransferState;
use TallBarrel\Core\Replenish\Term;
use TallBarrel\Core\Settling\ChargeKind;
use TallBarrel\Core\Sourcing\AgreementState;

/** Of which states, kinds and wishes something is so, all others being otherwise. */
final class StatesTest extends TestCase
{
    /** @return iterable<string, array{class-string<\BackedEnum>, string, list<\BackedEnum>}> */
    public static function questions(): iterable
    {
        yield 'an agreement worth a look' => [AgreementState::class, 'isWorthALook', [
            AgreementState::Behind, AgreementState::Ahead, AgreementState::NearlyUsed, AgreementState::UsedUp,
            AgreementState::EndsSoon,
        ]];
        yield 'an agreement in force' => [AgreementState::class, 'isInForce', [
            AgreementState::OnPace, AgreementState::Behind, AgreementState::Ahead, AgreementState::NearlyUsed,
            AgreementState::UsedUp, AgreementState::EndsSoon,
        ]];
        yield 'a requisition somebody decided about' => [RequisitionState::class, 'isDecided', [
            RequisitionState::Ordered, RequisitionState::Quoted, RequisitionState::Declined,
            RequisitionState::Withdrawn,
        ]];
        yield 'goods between sites, done with' => [TransferState::class, 'isOver', [
            TransferState::Arrived, TransferState::Dropped,
        ]];
        yield 'what goes back' => [ReturnWish::class, 'goesBack', [ReturnWish::Credit, ReturnWish::Replacement]];
        yield 'still with us' => [ReturnState::class, 'isStillHere', [ReturnState::Asked, ReturnState::Agreed]];
        yield 'a return, done with' => [ReturnState::class, 'isOver', [ReturnState::Settled, ReturnState::Dropped]];
        yield 'tax that we owe' => [TaxCategory::class, 'isOwedByBuyer', [
            TaxCategory::ReverseCharge, TaxCategory::WithinTheUnion,
        ]];
        yield 'charges somebody bills' => [ChargeKind::class, 'isBilled', [
            ChargeKind::Freight, ChargeKind::Duty, ChargeKind::Brokerage, ChargeKind::Insurance, ChargeKind::Packing,
            ChargeKind::Other,
        ]];
        yield 'totals of an explanation' => [Term::class, 'isTotal', [
            Term::Needed, Term::CouldFillUp, Term::MoreThanWanted,
        ]];
        yield 'lines in packs' => [Term::class, 'isInPacks', [Term::InPacks, Term::UpToBreak]];
    }

    /**
     * @param class-string<\BackedEnum> $class
     * @param list<\BackedEnum>         $yes
     */
    #[DataProvider('questions')]
    public function testItIsSoOfThese(string $class, string $question, array $yes): void
    {
        $answered = array_values(array_filter(
            $class::cases(),
            static fn (\BackedEnum $case): bool => true === (new \ReflectionMethod($case, $question))->invoke($case),
        ));
        self::assertSame($yes, $answered);
    }

    public function testUntaxedIsAllButTheStandardRate(): void
    {
        self::assertCount(count(TaxCategory::cases()) - 1, TaxCategory::untaxed());
        self::assertNotContains(TaxCategory::Standard, TaxCategory::untaxed());
    }
}
