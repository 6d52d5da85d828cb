<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Doctrine\ORM\Mapping as ORM;

/** A picture, kept with the rest so that it is backed up with it. */
#[ORM\Entity]
class Picture
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** @param string $content bytes of a PNG or JPEG that was drawn anew, so holds nothing else */
    public function __construct(
        #[ORM\Column(length: 20)] public readonly string $mime,
        #[ORM\Column(type: 'blob', length: 16777215)] private mixed $content,
    ) {
    }

    public function base64(): string
    {
        return base64_encode($this->content());
    }

    public function content(): string
    {
        if (is_resource($this->content)) {
            $this->content = (string) stream_get_contents($this->content, -1, 0);
        }

        return is_string($this->content) ? $this->content : '';
    }
}
