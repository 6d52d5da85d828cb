<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Person\KeptView;
use TallBarrel\Store\Person\Person;

/** Keeps a way of looking at a list, and lets it go. */
final readonly class KeepView
{
    public const MOST = 30;

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /**
     * Under a name they have already, the new one takes its place.
     *
     * @throws Refused without a name, or where there are enough
     */
    public function keep(Person $person, string $name, string $query): void
    {
        if ('' === $name) {
            throw new Refused('Give the view a name.');
        }
        $views = $this->entities->getRepository(KeptView::class);
        $same = $views->findOneBy(['person' => $person, 'name' => $name]);
        if (null === $same && $views->count(['person' => $person]) >= self::MOST) {
            throw new Refused(sprintf('You keep %d views; let one go first.', self::MOST));
        }
        if (null !== $same) {
            $this->entities->remove($same);
            $this->entities->flush();
        }
        $this->entities->persist(new KeptView($person, $name, $query));
        $this->entities->flush();
    }

    public function letGo(Person $person, int $id): void
    {
        $view = $this->entities->getRepository(KeptView::class)->findOneBy(['id' => $id, 'person' => $person]);
        if (null !== $view) {
            $this->entities->remove($view);
            $this->entities->flush();
        }
    }
}
