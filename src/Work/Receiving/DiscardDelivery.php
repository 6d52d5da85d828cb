<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Dock\Delivery;

/** Gives up a count that was begun by mistake; nothing has been booked from it. */
final readonly class DiscardDelivery
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @throws Refused if it is booked in already */
    public function discard(Delivery $delivery): void
    {
        $this->entities->wrapInTransaction(function () use ($delivery): void {
            $this->entities->lock($delivery, LockMode::PESSIMISTIC_WRITE);
            $this->entities->refresh($delivery);
            $delivery->mustBeOpen();
            $this->entities->remove($delivery);
        });
    }
}
