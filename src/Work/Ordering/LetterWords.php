<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use TallBarrel\Core\InvalidValue;

/** The letter an order goes out with, where somebody changed it, and who else gets it. */
final readonly class LetterWords
{
    /** Stands in the words for the address of the order's own page. */
    public const LINK = '[link]';
    private const MOST_COPIES = 5;

    /** @param list<string> $copies email addresses */
    private function __construct(public string $words, public array $copies)
    {
    }

    /**
     * @param string $words  empty for the usual letter
     * @param string $copies further recipients, with commas, semicolons or spaces between
     *
     * @throws InvalidValue if one is no email address, or there are too many
     */
    public static function of(string $words, string $copies): self
    {
        $addresses = preg_split('/[\s,;]+/', trim($copies), -1, \PREG_SPLIT_NO_EMPTY) ?: [];
        foreach ($addresses as $address) {
            if (false === filter_var($address, \FILTER_VALIDATE_EMAIL)) {
                throw InvalidValue::because(
                    sprintf('“%s” is not an email address; nothing has gone out.', $address),
                );
            }
        }
        if (count($addresses) > self::MOST_COPIES) {
            throw InvalidValue::because(sprintf('At most %d others can get a copy.', self::MOST_COPIES));
        }

        return new self(str_replace("\r\n", "\n", trim($words)), $addresses);
    }

    public static function usual(): self
    {
        return new self('', []);
    }
}
