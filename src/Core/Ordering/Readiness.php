<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

/** What an order still lacks before it can go out. A fact is named by the field that mends it. */
final readonly class Readiness
{
    /** @param list<array{fact: string, line: int|null, words: string}> $missing */
    private function __construct(public array $missing)
    {
    }

    /**
     * @param array{contact: string, email: string, address: string, terms: string} $facts empty where missing
     * @param list<array{line: int, item: string|null, supplierCode: string}>       $lines
     */
    public static function of(array $facts, array $lines): self
    {
        $missing = [];
        foreach (
            [
                'contact' => 'Nobody to send it to',
                'email' => 'No email address',
                'address' => 'Their address is missing',
                'terms' => 'No payment terms',
            ] as $fact => $words
        ) {
            if ('' === trim($facts[$fact])) {
                $missing[] = ['fact' => $fact, 'line' => null, 'words' => $words];
            }
        }
        if ([] === $lines) {
            $missing[] = ['fact' => 'lines', 'line' => null, 'words' => 'It has no lines'];
        }
        foreach ($lines as $line) {
            if (null !== $line['item'] && '' === trim($line['supplierCode'])) {
                $missing[] = [
                    'fact' => 'supplierCode',
                    'line' => $line['line'],
                    'words' => 'Their code for '.$line['item'].' is missing',
                ];
            }
        }

        return new self($missing);
    }

    public function isComplete(): bool
    {
        return [] === $this->missing;
    }
}
