<?php

declare(strict_types=1);

namespace TallBarrel\Store\Item;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;

/** A kind of items, perhaps part of a wider one. Items carry its name. */
#[ORM\Entity]
class Category
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** @throws InvalidValue */
    public function __construct(
        #[ORM\Column(length: 60, unique: true)] private string $name,
        #[ORM\ManyToOne] private ?Category $parent = null,
    ) {
        $this->rename($name);
        $this->moveUnder($parent);
    }

    /** @throws InvalidValue without a name */
    public function rename(string $name): void
    {
        $this->name = '' !== trim($name) ? trim($name) : throw InvalidValue::because('A category needs a name.');
    }

    /** @throws InvalidValue if it would be part of itself */
    public function moveUnder(?self $parent): void
    {
        for ($above = $parent; null !== $above; $above = $above->parent) {
            if ($above === $this) {
                throw InvalidValue::because(sprintf('“%s” would be part of itself.', $this->name));
            }
        }
        $this->parent = $parent;
    }

    public function name(): string
    {
        return $this->name;
    }

    public function parent(): ?self
    {
        return $this->parent;
    }
}
