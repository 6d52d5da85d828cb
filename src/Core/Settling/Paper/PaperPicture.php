<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling\Paper;

/** A file within the file: EN 16931-1 BT-125. */
final readonly class PaperPicture
{
    /** @param string $content bytes; nothing is believed of what they are said to be */
    public function __construct(public string $name, public string $content)
    {
    }
}
