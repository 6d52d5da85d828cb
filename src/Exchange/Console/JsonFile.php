<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Console;

use TallBarrel\Core\InvalidValue;

/** A JSON object from a file. */
final readonly class JsonFile
{
    private const DEEPEST = 16;

    /**
     * @param string $expected what it should look like, for the message
     *
     * @return array<mixed>
     *
     * @throws InvalidValue naming the file and what is wrong with it
     */
    public static function read(string $path, string $expected): array
    {
        if (!is_file($path) || !is_readable($path)) {
            throw InvalidValue::because(sprintf('There is no readable file “%s”.', $path));
        }
        try {
            $data = json_decode((string) file_get_contents($path), true, self::DEEPEST, \JSON_THROW_ON_ERROR);
        } catch (\JsonException $broken) {
            throw InvalidValue::because(sprintf('“%s” is not JSON: %s.', $path, $broken->getMessage()));
        }

        return is_array($data) && !array_is_list($data)
            ? $data
            : throw InvalidValue::because(sprintf('“%s” holds no object; expected %s.', $path, $expected));
    }
}
