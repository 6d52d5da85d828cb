<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

/**
 * The letters that went out, where the outside world is stood in for.
 *
 * @phpstan-type Letter array{name: string, at: string, from: string, to: list<string>, copy: list<string>,
 *      subject: string, text: string, attachments: list<string>}
 */
interface SentLetters
{
    /** @return list<Letter> newest first */
    public function letters(int $most = 100): array;

    /** The message as it would have gone over the wire; null if there is none of that name. */
    public function eml(string $name): ?string;
}
