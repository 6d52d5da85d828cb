<?php

declare(strict_types=1);

namespace TallBarrel\Core;

/** A rule of the business forbids what was asked. The message says which, and what can be done instead. */
final class Refused extends \DomainException
{
}
