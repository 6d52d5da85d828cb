<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Response;

/** A file that somebody brought, as it is given back: a picture is shown, everything else is taken away. */
final readonly class KeptFile
{
    public static function of(string $name, string $mime, string $content): Response
    {
        $isPicture = str_starts_with($mime, 'image/');

        return new Response($content, headers: [
            'Content-Type' => $mime,
            'Content-Disposition' => HeaderUtils::makeDisposition(
                $isPicture ? HeaderUtils::DISPOSITION_INLINE : HeaderUtils::DISPOSITION_ATTACHMENT,
                $name,
                (string) preg_replace('/[^\x20-\x7e]|[%\/\\\\]/', '_', $name),
            ),
        ]);
    }
}
