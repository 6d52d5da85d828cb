<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

use Brick\Math\BigDecimal;

/**
 * What a supplier says of one line of an order beside what the order says.
 *
 * @phpstan-type AnsweredData array{line: int, packs: string, price: string, day: string, asked: array{string, string,
 *      string}}
 */
final readonly class AnsweredLine
{
    /**
     * @param BigDecimal $asked      packs ordered
     * @param BigDecimal $askedPrice of one pack
     */
    public function __construct(
        public int $line,
        public BigDecimal $packs,
        public BigDecimal $price,
        public \DateTimeImmutable $day,
        public BigDecimal $asked,
        public BigDecimal $askedPrice,
        public \DateTimeImmutable $askedFor,
    ) {
    }

    /**
     * Which of packs, price and day need a yes of ours: a cheaper price or an earlier day does not.
     *
     * @return list<string>
     */
    public function differing(): array
    {
        return array_keys(
            array_filter([
                'packs' => !$this->packs->isEqualTo($this->asked),
                'price' => $this->price->isGreaterThan($this->askedPrice),
                'day' => $this->day > $this->askedFor,
            ]),
        );
    }

    /** Whether the order itself has to change: not for a day alone. */
    public function changesTheOrder(): bool
    {
        return !$this->packs->isEqualTo($this->asked) || !$this->price->isEqualTo($this->askedPrice);
    }

    /** @return AnsweredData */
    public function toArray(): array
    {
        return [
            'line' => $this->line,
            'packs' => (string) $this->packs,
            'price' => (string) $this->price,
            'day' => $this->day->format('Y-m-d'),
            'asked' => [(string) $this->asked, (string) $this->askedPrice, $this->askedFor->format('Y-m-d')],
        ];
    }

    /** @param AnsweredData $data */
    public static function fromArray(array $data): self
    {
        return new self(
            $data['line'],
            BigDecimal::of($data['packs'])->strippedOfTrailingZeros(),
            BigDecimal::of($data['price'])->strippedOfTrailingZeros(),
            new \DateTimeImmutable($data['day']),
            BigDecimal::of($data['asked'][0])->strippedOfTrailingZeros(),
            BigDecimal::of($data['asked'][1])->strippedOfTrailingZeros(),
            new \DateTimeImmutable($data['asked'][2]),
        );
    }
}
