<?php

declare(strict_types=1);

namespace TallBarrel\Exchange;

use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Business\Picture;
use TallBarrel\Work\Keeping\DrawPicture;

/** Every picture is drawn anew, so that what is kept holds nothing but what is seen. */
final readonly class DrawnAnew implements DrawPicture
{
    private const MOST_BYTES = 8_388_608;
    private const MOST_PIXELS = 40_000_000;
    private const KINDS = [\IMAGETYPE_PNG => 'image/png', \IMAGETYPE_JPEG => 'image/jpeg'];

    public function draw(string $bytes, int $widest): Picture
    {
        if (strlen($bytes) > self::MOST_BYTES) {
            throw InvalidValue::because(
                sprintf('The picture has %.1f MB; at most 8 MB are taken.', strlen($bytes) / 1_048_576),
            );
        }
        $facts = @getimagesizefromstring($bytes);
        $mime = false === $facts ? null : self::KINDS[$facts[2]] ?? null;
        if (false === $facts || null === $mime) {
            throw InvalidValue::because('This is no picture that can be shown; expected a PNG or a JPEG.');
        }
        if ($facts[0] * $facts[1] > self::MOST_PIXELS) {
            throw InvalidValue::because(
                sprintf('The picture has %d by %d dots; at most 40 million in all are taken.', $facts[0], $facts[1]),
            );
        }
        $picture = @imagecreatefromstring($bytes);
        if (false === $picture) {
            throw InvalidValue::because('The picture is damaged.');
        }
        $factor = min(1.0, $widest / max($facts[0], $facts[1]));
        if ($factor < 1) {
            $smaller = imagescale($picture, max(1, (int) round($facts[0] * $factor)));
            $picture = false === $smaller ? $picture : $smaller;
        }
        imagesavealpha($picture, true);
        ob_start();
        'image/png' === $mime ? imagepng($picture, null, 8) : imagejpeg($picture, null, 86);

        return new Picture($mime, (string) ob_get_clean());
    }
}
