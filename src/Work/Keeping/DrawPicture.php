<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Business\Picture;

/** Takes a picture in, whatever its name says it is. */
interface DrawPicture
{
    /**
     * @param string $bytes  of a PNG or JPEG
     * @param int    $widest pixels that neither side goes beyond; a larger one is drawn smaller
     *
     * @throws InvalidValue if it is no such picture
     */
    public function draw(string $bytes, int $widest): Picture;
}
