<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use TallBarrel\Core\InvalidValue;

/** A PDF or a picture that somebody brought: what it is by its content, never by its name. */
final readonly class KnownContent
{
    private const MOST_BYTES = 8 * 1_048_576;
    /** Pixels: enough to read a note by. */
    private const WIDEST = 2400;

    public function __construct(private DrawPicture $pictures)
    {
    }

    /**
     * @param string $name  as the file was called; nothing is believed of it
     * @param string $bytes a PDF, which is kept as it is, or a PNG or JPEG, which is drawn anew
     *
     * @return array{string, string, string} name, kind, and bytes as they are kept
     *
     * @throws InvalidValue if it is none of these, or too large
     */
    public function of(string $name, string $bytes): array
    {
        if (strlen($bytes) > self::MOST_BYTES) {
            throw InvalidValue::because(sprintf(
                '“%s” has %.1f MB; at most %d MB are taken.',
                $name,
                strlen($bytes) / 1_048_576,
                self::MOST_BYTES / 1_048_576,
            ));
        }
        [$mime, $content] = $this->seen($name, $bytes);

        return [self::named($name, $mime), $mime, $content];
    }

    /**
     * @return array{string, string}
     *
     * @throws InvalidValue
     */
    private function seen(string $name, string $bytes): array
    {
        if (str_starts_with($bytes, '%PDF-')) {
            if (!str_contains(substr($bytes, -2048), '%%EOF')) {
                throw InvalidValue::because(sprintf('“%s” is a PDF without an end; it is damaged.', $name));
            }

            return ['application/pdf', $bytes];
        }
        try {
            $picture = $this->pictures->draw($bytes, self::WIDEST);
        } catch (InvalidValue) {
            throw InvalidValue::because(
                sprintf('“%s” is no picture and no PDF, whatever its name says; expected PDF, PNG or JPEG.', $name),
            );
        }

        return [$picture->mime, $picture->content()];
    }

    /** Its name without what a name cannot be, ending as what it is. */
    public static function named(string $name, string $mime): string
    {
        $plain = (string) preg_replace('/[^\p{L}\p{N} ._-]+/u', '', pathinfo($name, \PATHINFO_FILENAME));

        return mb_substr('' === trim($plain, ' .') ? 'scan' : trim($plain, ' .'), 0, 100).match ($mime) {
            'application/pdf' => '.pdf',
            'image/png' => '.png',
            'application/xml' => '.xml',
            'text/csv' => '.csv',
            default => '.jpg',
        };
    }
}
