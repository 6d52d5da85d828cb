<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Problems;
use TallBarrel\Store\Planning\Closure;
use TallBarrel\Store\Supplier\Supplier;

/** Notes days on which a supplier, or the business, is shut, and takes them back. */
final readonly class KeepClosure
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /**
     * @param Supplier|null $supplier null for ourselves
     * @param Problems      $problems at first
     *
     * @return Closure|null null where something stands in the way
     */
    public function add(
        ?Supplier $supplier,
        ?\DateTimeImmutable $first,
        ?\DateTimeImmutable $last,
        string $words,
        Problems $problems,
    ): ?Closure {
        $last ??= $first;
        if (null === $first || null === $last) {
            $problems->refuse('first', 'Give the first day, and the last if there are more.');

            return null;
        }
        $closure = $problems->areNone()
            ? $problems->attempt('first', static fn (): Closure => new Closure($supplier, $first, $last, $words))
            : null;
        if (null !== $closure) {
            $this->entities->persist($closure);
            $this->entities->flush();
        }

        return $closure;
    }

    public function takeBack(int $id): void
    {
        $closure = $this->entities->find(Closure::class, $id);
        if (null !== $closure) {
            $this->entities->remove($closure);
            $this->entities->flush();
        }
    }
}
