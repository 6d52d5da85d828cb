<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Doctrine\ORM\Mapping as ORM;

/** A document that went to a supplier, kept byte for byte. */
#[ORM\Entity(readOnly: true)]
class SentDocument
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Column(length: 64)]
    public readonly string $sha256;

    /** @var resource|string */
    #[ORM\Column(type: 'blob', length: 16777215)]
    private mixed $content;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly PurchaseOrder $order,
        #[ORM\Column] public readonly int $revision,
        #[ORM\Column(length: 120)] public readonly string $filename,
        #[ORM\Column(length: 80)] public readonly string $mediaType,
        #[ORM\Column(length: 180)] public readonly string $sentTo,
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $sentAt,
        string $content,
    ) {
        $this->content = $content;
        $this->sha256 = hash('sha256', $content);
    }

    public function content(): string
    {
        if (is_resource($this->content)) {
            $this->content = (string) stream_get_contents($this->content);
        }

        return is_string($this->content) ? $this->content : '';
    }
}
