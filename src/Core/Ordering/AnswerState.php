<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

/** What became of a supplier's answer to an order. */
enum AnswerState: string
{
    /** It said what was ordered, or better. */
    case Taken = 'taken';
    /** It differs: somebody has to say yes or no. */
    case Waiting = 'waiting';
    case Accepted = 'accepted';
    case Declined = 'declined';
    /** Another answer, or another revision, came after it. */
    case Overtaken = 'overtaken';
    /** Words only. */
    case Message = 'message';
}
