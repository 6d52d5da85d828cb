<?php

declare(strict_types=1);

namespace TallBarrel\Exchange;

use TallBarrel\Core\InvalidValue;

/** XML that somebody brought: nothing outside it is looked at, and it may not declare a document type. */
final readonly class SafeXml
{
    /** @throws InvalidValue if it is too large, not well-formed, or declares a document type */
    public static function open(string $name, string $bytes, int $mostBytes): \DOMDocument
    {
        if (strlen($bytes) > $mostBytes) {
            throw InvalidValue::because(sprintf(
                '“%s” has %.1f MB; at most %d MB are read.',
                $name,
                strlen($bytes) / 1_048_576,
                $mostBytes / 1_048_576,
            ));
        }
        $kept = libxml_use_internal_errors(true);
        try {
            $document = new \DOMDocument();
            $isRead = '' !== trim($bytes) && $document->loadXML($bytes, \LIBXML_NONET | \LIBXML_COMPACT);
            $error = libxml_get_last_error();
        } finally {
            libxml_clear_errors();
            libxml_use_internal_errors($kept);
        }
        // Entities are declared in a document type: whoever has none has none.
        if (null !== $document->doctype) {
            throw InvalidValue::because(sprintf('“%s” declares a document type; it needs none.', $name));
        }
        if (!$isRead) {
            throw InvalidValue::because(false === $error ? sprintf('“%s” is empty.', $name) : sprintf(
                '“%s” is not well-formed XML: line %d, %s.',
                $name,
                $error->line,
                lcfirst(rtrim(trim($error->message), '.')),
            ));
        }

        return $document;
    }

    /** The text of the first that is found, its spaces made single; empty where there is none. */
    public static function text(\DOMXPath $xpath, string $query, ?\DOMNode $in): string
    {
        $found = $xpath->query($query, $in ?? $xpath->document->documentElement);
        $node = false === $found ? null : $found->item(0);
        $text = $node instanceof \DOMNode ? $node->textContent : '';

        return trim((string) preg_replace('/\s+/u', ' ', $text));
    }

    /** @return list<\DOMNode> */
    public static function nodes(\DOMXPath $xpath, string $query, ?\DOMNode $in): array
    {
        $found = $xpath->query($query, $in);

        return array_values(array_filter(
            false === $found ? [] : iterator_to_array($found),
            static fn (mixed $node): bool => $node instanceof \DOMNode,
        ));
    }
}
