<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

/** A message: suppliers who are stood in for need not wait any longer with their answers. */
final readonly class AnswersWanted
{
}
