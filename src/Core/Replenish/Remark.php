<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** Something to know about a proposal beside its sum. */
enum Remark: string
{
    /** With order, units and daysLate: not counted on. */
    case ForgottenOrder = 'forgotten-order';
    /** With order, units and day: does not help until then. */
    case ComesLater = 'comes-later';
    /** With order, due and by. */
    case BringForward = 'bring-forward';
    /** With the days Silver–Meal would cover. */
    case OtherLot = 'other-lot';
    case OnlyByHand = 'only-by-hand';
    /** With position and point: what is there and in time, and the reorder point it is above. */
    case AboveReorderPoint = 'above-reorder-point';
    /** With position and point: not below the minimum. */
    case NotBelowMinimum = 'not-below-minimum';

    /** With item and factor: too new for a history of its own. */
    case SellsLike = 'sells-like';
    /** With weeks of its own, and what is like it sells a week. */
    case FewWeeks = 'few-weeks';
    /** With days. */
    case Holidays = 'holidays';
    /** With days until the supplier next takes an order, and from a weekend's arrival to somebody being here. */
    case Waits = 'waits';
    /** With percent, until and reason. */
    case Adjusted = 'adjusted';
    /** With supplier, cost, chosen (cost), second (1 by rank, else 0) and days. */
    case OtherSupplier = 'other-supplier';

    /** With times a month's sales. */
    case ManyMonths = 'many-months';
    case NotSold = 'not-sold';
    /** With percent against the last price paid. */
    case PriceJump = 'price-jump';
    case ForecastTooHigh = 'forecast-too-high';
    case ForecastTooLow = 'forecast-too-low';
}
