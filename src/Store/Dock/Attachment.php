<?php

declare(strict_types=1);

namespace TallBarrel\Store\Dock;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Store\Person\Person;

/** A picture or a scan that is kept with a delivery, as it was brought in. */
#[ORM\Entity]
#[ORM\Table(name: 'delivery_attachment')]
class Attachment
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** @param string $content bytes; its kind was seen in them and not taken from its name */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')] public readonly Delivery $delivery,
        #[ORM\Column(length: 120)] public readonly string $name,
        #[ORM\Column(length: 20)] public readonly string $mime,
        #[ORM\Column(type: 'blob', length: 16777215)] private mixed $content,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Person $by,
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $at,
        /** What it shows, where it is one of the counted lines. */
        #[ORM\ManyToOne, ORM\JoinColumn(onDelete: 'SET NULL')] public readonly ?DeliveryLine $line = null,
    ) {
    }

    public function content(): string
    {
        if (is_resource($this->content)) {
            $this->content = (string) stream_get_contents($this->content, -1, 0);
        }

        return is_string($this->content) ? $this->content : '';
    }
}
