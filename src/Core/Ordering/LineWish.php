<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

use Brick\Math\BigDecimal;

/**
 * What one line of a sent order is to become, or a line that is to be added.
 *
 * @phpstan-type WishData array{line: int|null, offer: int|null, text: string, packs: string, price: string,
 *      day: string|null, site: int}
 */
final readonly class LineWish
{
    /**
     * @param int|null $line  the line there is; null for a new one
     * @param int|null $offer what a new line buys; null for free text
     * @param int      $site  where it goes
     */
    public function __construct(
        public ?int $line,
        public ?int $offer,
        public string $text,
        public BigDecimal $packs,
        public BigDecimal $price,
        public ?\DateTimeImmutable $day,
        public int $site,
    ) {
    }

    /** @return WishData */
    public function toArray(): array
    {
        return [
            'line' => $this->line,
            'offer' => $this->offer,
            'text' => $this->text,
            'packs' => (string) $this->packs,
            'price' => (string) $this->price,
            'day' => $this->day?->format('Y-m-d'),
            'site' => $this->site,
        ];
    }

    /** @param WishData $data */
    public static function fromArray(array $data): self
    {
        return new self(
            $data['line'],
            $data['offer'],
            $data['text'],
            BigDecimal::of($data['packs'])->strippedOfTrailingZeros(),
            BigDecimal::of($data['price'])->strippedOfTrailingZeros(),
            null === $data['day'] ? null : new \DateTimeImmutable($data['day']),
            $data['site'],
        );
    }
}
