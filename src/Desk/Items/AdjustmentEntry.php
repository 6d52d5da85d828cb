<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Items;

use Brick\Math\BigDecimal;
use Symfony\Component\Validator\Constraints as Assert;

/** A change of the forecast as it is typed. */
final class AdjustmentEntry
{
    #[Assert\NotNull(message: 'Say by how much, such as +20 or −30.')]
    public ?BigDecimal $percent = null;
    #[Assert\NotNull(message: 'Say until when it holds.')]
    public ?\DateTimeImmutable $until = null;
    public string $reason = '';
}
