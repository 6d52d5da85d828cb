<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

/** Words of the trade that stand on our pages, each with a sentence and an example for who meets it the first time. */
enum TradeWord: string
{
    case LandedCost = 'landed cost';
    case SafetyStock = 'safety stock';
    case ReorderPoint = 'reorder point';
    case Service = 'service';
    case Leaning = 'leaning';
    case SilverMeal = 'Silver–Meal';
    case Distribution = 'distribution';
    case Meant = 'meant';
    case ForecastError = 'forecast error';

    public function meaning(): string
    {
        return match ($this) {
            self::LandedCost => 'What one piece costs once it stands on your shelf: price less discounts, plus its '
                .'share of '
                .'freight, duty and bank charges, plus what the money tied up costs.',
            self::SafetyStock => 'Held for the weeks that sell more than expected and the deliveries that come late.',
            self::ReorderPoint => 'When what is there and coming falls to this, it is time to order.',
            self::Service => 'How often customers find it. Counted by deliveries: the share of order cycles in which '
                .'nothing '
                .'runs out. Counted by demand: the share of pieces sold straight from the shelf.',
            self::Leaning => 'Whether a forecast is mostly too low or too high; none leans when its errors cancel out.',
            self::SilverMeal => 'A way to choose how much to buy at once: go on adding weeks as long as the cost of '
                .'a week, '
                .'ordering and holding together, falls (Silver and Meal, 1973).',
            self::Distribution => 'How likely each possible demand is, not only the most likely one.',
            self::Meant => 'The stock you would hold on average if everything were ordered as the policies say.',
            self::ForecastError => 'How far forecasts were off, as a part of how far simply repeating last time was '
                .'off.',
        };
    }

    public function example(): string
    {
        return match ($this) {
            self::LandedCost => 'A jar at 0.80, freight of 48 on 960 jars and 2 % duty: 0.80 + 0.05 + 0.016 = 0.866.',
            self::SafetyStock => 'Ten a week, some weeks fourteen, two weeks to deliver: about eight more than the '
                .'twenty.',
            self::ReorderPoint => 'Ten a week, two weeks to deliver, eight in safety: order at 28.',
            self::Service => '97 % of deliveries: in 97 of 100 cycles nobody goes home without.',
            self::Leaning => '+8 %: it forecast 108 where 100 were sold.',
            self::SilverMeal => 'Four weeks at 21 a week beat five weeks at 22: buy for four.',
            self::Distribution => 'A pump sells 0 in nine weeks of ten, then 2 or 3; its mean of 0.25 never happens.',
            self::Meant => '€18,400 held, €16,200 meant: €2,200 more than the policies ask for.',
            self::ForecastError => '0.80: a fifth better than repeating last week.',
        };
    }
}
