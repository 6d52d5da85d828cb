<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Problems;
use TallBarrel\Store\Site\DeliveryPlace;

/** Places that goods may be sent to and that are no site. */
final readonly class KeepDeliveryPlace
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    public function add(string $name, string $address, Problems $problems): void
    {
        $problems->apply('place', function () use ($name, $address): void {
            $known = $this->entities->getRepository(DeliveryPlace::class)->findOneBy(['name' => trim($name)]);
            if (null !== $known) {
                throw InvalidValue::because(sprintf('There is a place “%s” already.', $known->name()));
            }
            $this->entities->persist(new DeliveryPlace($name, $address));
            $this->entities->flush();
        });
    }

    public function drop(int $id): void
    {
        $place = $this->entities->find(DeliveryPlace::class, $id);
        if (null !== $place) {
            $this->entities->remove($place);
            $this->entities->flush();
        }
    }
}
