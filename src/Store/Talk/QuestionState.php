<?php

declare(strict_types=1);

namespace TallBarrel\Store\Talk;

/** How far a question between colleagues is. */
enum QuestionState: string
{
    case Open = 'open';
    case Answered = 'answered';
    case Settled = 'settled';
}
