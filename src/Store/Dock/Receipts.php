<?php

declare(strict_types=1);

namespace TallBarrel\Store\Dock;

use Doctrine\ORM\EntityManagerInterface;

/** Receipts, found; the opposite of one is a receipt too. */
final readonly class Receipts
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** What a delivery was booked in as; null until it is. */
    public function of(Delivery $delivery): ?Receipt
    {
        return $this->entities
            ->getRepository(Receipt::class)
            ->findOneBy(['delivery' => $delivery, 'takesBack' => null]);
    }

    /** @return array<int, Receipt> by which receipt a line of this one was taken back, by line */
    public function takenBack(Receipt $receipt): array
    {
        $found = [];
        foreach ($this->entities->getRepository(Receipt::class)->findBy(['takesBack' => $receipt]) as $back) {
            foreach ($back->lines() as $line) {
                $found[$line->takesBack->id ?? 0] = $back;
            }
        }

        return $found;
    }
}
