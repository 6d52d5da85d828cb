<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\Request;
use TallBarrel\Core\InvalidValue;

/** A file that came with a form. */
final readonly class BroughtFile
{
    private function __construct()
    {
    }

    /**
     * Its bytes; null where none was chosen.
     *
     * @throws InvalidValue if it did not arrive whole
     */
    public static function in(Request $request, string $name): ?string
    {
        $file = $request->files->get($name);
        if (!$file instanceof UploadedFile || \UPLOAD_ERR_NO_FILE === $file->getError()) {
            return null;
        }
        if (!$file->isValid()) {
            throw InvalidValue::because(
                \UPLOAD_ERR_INI_SIZE === $file->getError()
                    ? 'The file is too large.'
                    : 'The file did not arrive whole. Try again.',
            );
        }

        return $file->getContent();
    }

    /** As it was called where it came from. */
    public static function named(Request $request, string $name): string
    {
        $file = $request->files->get($name);

        return $file instanceof UploadedFile ? $file->getClientOriginalName() : '';
    }
}
