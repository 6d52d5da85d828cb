<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Reorder;

use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Replenish\CoverBasis;
use TallBarrel\Core\Replenish\ExplanationLine;
use TallBarrel\Core\Replenish\Note;
use TallBarrel\Core\Replenish\Remark;
use TallBarrel\Core\Replenish\ServiceTarget;
use TallBarrel\Core\Replenish\Term;
use TallBarrel\Desk\Shell\Format;
use Twig\Attribute\AsTwigFilter;

/** The words of a why: what a line of the sum and a remark say. */
final readonly class WhyWords
{
    public function __construct(private Format $format)
    {
    }

    /** "Safety stock, 97 % of deliveries in time, delivery ± 1 d". */
    #[AsTwigFilter('why_label')]
    public function label(ExplanationLine $line): string
    {
        $with = $line->with;

        return match ($line->term) {
            Term::ForecastUntilNext => sprintf(
                'Forecast over %s d delivery + %s d until the next order',
                self::days($with['lead']),
                self::days($with['review']),
            ),
            Term::ForecastOverCover => sprintf(
                'Forecast over %s d delivery + %s d, %s',
                self::days($with['lead']),
                self::days($with['cover']),
                self::basis(CoverBasis::from((string) $with['basis'])),
            ),
            Term::SafetyStock => sprintf(
                'Safety stock, %s, delivery ± %s d',
                ServiceTarget::of((string) $with['target'], (float) $with['level'])->words(),
                self::days($with['spread']),
            ),
            Term::ParLevel => 'Par level',
            Term::Maximum => sprintf('Maximum, once under %s', Format::figure($with['minimum'])),
            Term::ByHand => 'Ordered only by hand',
            Term::Planned => sprintf('%s, %s (planned)', $with['name'], self::day($with['day'], 'D j M')),
            Term::OnHand => 'On hand',
            Term::OnOrder => 'On order, here in time',
            Term::Promised => 'Promised to customers',
            Term::Needed => 'Needed',
            Term::CouldFillUp => 'Could be filled up by',
            Term::MoreThanWanted => 'More than wanted by',
            Term::InLots => sprintf('In lots of %s', Format::figure($with['lot'])),
            Term::BoughtAhead => sprintf(
                'Bought ahead: %s %% dearer from %s',
                self::days($with['percent']),
                self::day($with['day'], 'j M'),
            ),
            Term::SellsInTime => sprintf('Less, so that it sells within its %d days', (int) $with['days']),
            Term::InPacks => sprintf(
                'In what can be bought: %s (%s)',
                self::pack($line)->label(),
                Format::number((float) $with['exact'], 1),
            ),
            Term::UpToBreak => sprintf(
                'Up to the price break at %s: saves %s, holding it costs %s',
                Format::figure($with['from']),
                $this->format->home($with['saves']),
                $this->format->home($with['costs']),
            ),
        };
    }

    /** The amount, with its unit where it is a result. */
    #[AsTwigFilter('why_figure')]
    public static function amount(ExplanationLine $line, Unit $unit): string
    {
        $figure = Format::figure($line->amount);

        return match (true) {
            $line->term->isInPacks() => $figure.' '.self::pack($line)->named((string) $line->amount),
            $line->term->isTotal() => $figure.' '.$unit->symbol(),
            default => $figure,
        };
    }

    /** "PO-1012, 400 pcs, is 44 days late and not counted on." */
    #[AsTwigFilter('remark')]
    public function remark(Note $note, Unit $unit): string
    {
        $with = $note->with;
        $units = static fn (string $name): string => Format::figure($with[$name]).' '.$unit->symbol();

        return match ($note->remark) {
            Remark::ForgottenOrder => sprintf(
                '%s, %s, is %s late and not counted on.',
                $with['order'],
                $units('units'),
                Format::plural((int) $with['daysLate'], 'day'),
            ),
            Remark::ComesLater => sprintf(
                '%s, %s, comes only on %s and does not help until then.',
                $with['order'],
                $units('units'),
                self::day($with['day'], 'D j M'),
            ),
            Remark::BringForward => sprintf(
                '%s, due %s, would save the day if it came by %s: ask to bring it forward.',
                $with['order'],
                self::day($with['due'], 'D j M'),
                self::day($with['by'], 'D j M'),
            ),
            Remark::OtherLot => sprintf('Silver–Meal would cover %d days.', (int) $with['days']),
            Remark::OnlyByHand => 'It is ordered only by hand.',
            Remark::AboveReorderPoint => sprintf(
                'Nothing is due: %s in stock and coming in time is above the reorder point of %s.',
                $units('position'),
                Format::figure($with['point']),
            ),
            Remark::NotBelowMinimum => sprintf(
                'Nothing is due: %s in stock and coming in time is not below the minimum of %s.',
                $units('position'),
                Format::figure($with['point']),
            ),
            Remark::SellsLike => sprintf(
                'Too new for a history of its own: expected to sell like %s%s.',
                $with['item'],
                1.0 === (float) $with['factor'] ? '' : sprintf(', × %g', (float) $with['factor']),
            ),
            Remark::FewWeeks => sprintf(
                'Little is known: %s of its own, drawn towards the %s a week that what is like it sells.',
                Format::plural((int) $with['weeks'], 'week'),
                Format::figure($with['usual'], 1),
            ),
            Remark::Waits => sprintf(
                '%s of the delivery %s the wait for their next order day, or for a day on which somebody is here.',
                Format::plural((int) $with['days'], 'day'),
                1 === (int) $with['days'] ? 'is' : 'are',
            ),
            Remark::Holidays => sprintf(
                '%s more: holidays lie on the way.',
                Format::plural((int) $with['days'], 'day'),
            ),
            Remark::Adjusted => sprintf(
                'Forecast %+g %% until %s: %s.',
                (float) $with['percent'],
                self::day($with['until'], 'j M'),
                $with['reason'],
            ),
            Remark::OtherSupplier => sprintf(
                '%s would cost %s for one against %s%s, lead time %s.',
                '' === $with['supplier'] ? 'Another supplier' : $with['supplier'],
                $this->format->home($with['cost']),
                $this->format->home($with['chosen']),
                1 === $with['second'] ? ' and comes second by rank' : '',
                Format::plural((int) $with['days'], 'day'),
            ),
            default => self::odd($note),
        };
    }

    /** "price +20 %": what to look at twice. */
    #[AsTwigFilter('odd')]
    public static function odd(Note $note): string
    {
        return match ($note->remark) {
            Remark::ManyMonths => sprintf('%s times a month’s sales', Format::number((float) $note->with['times'])),
            Remark::NotSold => 'not sold for half a year',
            Remark::PriceJump => 'price '.str_replace('-', '−', sprintf('%+.0f %%', (float) $note->with['percent'])),
            Remark::ForecastTooHigh => 'forecast has been too high',
            Remark::ForecastTooLow => 'forecast has been too low',
            default => $note->remark->value,
        };
    }

    private static function basis(CoverBasis $basis): string
    {
        return match ($basis) {
            CoverBasis::AsAsked => 'as asked',
            CoverBasis::ForSalesValue => 'for the sales value asked for',
            CoverBasis::UntilNextOrder => 'until the next order',
            CoverBasis::NothingSells => 'nothing sells',
            CoverBasis::CheapestOverSeason => 'cheapest over the coming season',
            CoverBasis::EconomicQuantity => 'economic quantity',
            CoverBasis::ReachesBreak => 'reaches a price break',
        };
    }

    private static function pack(ExplanationLine $line): Pack
    {
        return Pack::of((string) $line->with['pack'], (string) $line->with['content']);
    }

    private static function days(float|int|string $days): string
    {
        return Format::figure($days, 1);
    }

    private static function day(float|int|string $day, string $format): string
    {
        return (new \DateTimeImmutable((string) $day))->format($format);
    }
}
