<?php

declare(strict_types=1);

namespace TallBarrel\Store\Quote;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;

/** A drawing or a list that goes out with a round. */
#[ORM\Entity]
class RoundFile
{
    public const MOST_BYTES = 4 * 1024 * 1024;

    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** @param string|resource $content */
    public function __construct(
        #[ORM\ManyToOne(inversedBy: 'files'), ORM\JoinColumn(nullable: false)] public readonly QuoteRound $round,
        #[ORM\Column(length: 120)] public readonly string $filename,
        #[ORM\Column(length: 80)] public readonly string $mediaType,
        #[ORM\Column(type: Types::BLOB, length: 16777215)] private mixed $content,
    ) {
    }

    public function content(): string
    {
        if (is_resource($this->content)) {
            rewind($this->content);

            return (string) stream_get_contents($this->content);
        }

        return is_string($this->content) ? $this->content : '';
    }
}
