<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\InvalidValue;

/**
 * What a planning run starts from, and what it rests on.
 *
 * @phpstan-type Data array{start?: string, figure?: float|int|null, list?: int|null, history?: string,
 *      from?: string|null, to?: string|null, countStock?: bool, wholePacks?: bool}
 */
final readonly class PlanningOptions
{
    public const DUE = 'due';
    public const MINIMUM = 'minimum';
    public const COVER = 'cover';
    public const VALUE = 'value';
    public const STAPLES = 'staples';
    public const LISTED = 'list';
    public const NOTHING = 'nothing';

    public const STARTS = [
        self::DUE => 'Everything due',
        self::MINIMUM => 'Only what is under its minimum',
        self::COVER => 'Cover so many days',
        self::VALUE => 'Enough for a sales value',
        self::STAPLES => 'The staples',
        self::LISTED => 'An order list',
        self::NOTHING => 'Nothing',
    ];

    public const ALL = 'all';
    public const LATELY = 'lately';
    public const LAST_YEAR = 'last-year';
    public const RANGE = 'range';

    public const HISTORIES = [
        self::ALL => 'all history',
        self::LATELY => 'the last 4 weeks',
        self::LAST_YEAR => 'the same season last year',
        self::RANGE => 'a date range',
    ];

    private function __construct(
        public string $start,
        public ?float $figure,
        public ?int $list,
        public string $history,
        public ?string $from,
        public ?string $to,
        public bool $countStock,
        public bool $wholePacks,
    ) {
    }

    public static function usual(): self
    {
        return new self(self::DUE, null, null, self::ALL, null, null, true, true);
    }

    /** @throws InvalidValue if a figure, list or range is missing or makes no sense */
    public static function of(
        string $start,
        ?float $figure = null,
        ?int $list = null,
        string $history = self::ALL,
        ?string $from = null,
        ?string $to = null,
        bool $countStock = true,
        bool $wholePacks = true,
    ): self {
        if (!isset(self::STARTS[$start])) {
            throw InvalidValue::because(sprintf('Planning cannot start from “%s”.', $start));
        }
        if (!isset(self::HISTORIES[$history])) {
            throw InvalidValue::because(sprintf('There is no history called “%s”.', $history));
        }
        if (self::COVER === $start && (null === $figure || $figure < 1 || $figure > 730)) {
            throw InvalidValue::because('Say how many days to cover: 1 to 730.');
        }
        if (self::VALUE === $start && (null === $figure || $figure <= 0)) {
            throw InvalidValue::because('Say for how much expected sales: an amount above 0.');
        }
        if (self::LISTED === $start && null === $list) {
            throw InvalidValue::because('Choose an order list.');
        }
        if (self::RANGE === $history && (null === $from || null === $to || $from > $to)) {
            throw InvalidValue::because('Give the first and last day of the history to rest on, in this order.');
        }

        return new self(
            $start,
            in_array($start, [self::COVER, self::VALUE], true) ? $figure : null,
            self::LISTED === $start ? $list : null,
            $history,
            self::RANGE === $history ? $from : null,
            self::RANGE === $history ? $to : null,
            $countStock,
            $wholePacks,
        );
    }

    /** @return Data */
    public function toArray(): array
    {
        return [
            'start' => $this->start,
            'figure' => $this->figure,
            'list' => $this->list,
            'history' => $this->history,
            'from' => $this->from,
            'to' => $this->to,
            'countStock' => $this->countStock,
            'wholePacks' => $this->wholePacks,
        ];
    }

    /** @param Data $data */
    public static function fromArray(array $data): self
    {
        return new self(
            $data['start'] ?? self::DUE,
            isset($data['figure']) ? (float) $data['figure'] : null,
            $data['list'] ?? null,
            $data['history'] ?? self::ALL,
            $data['from'] ?? null,
            $data['to'] ?? null,
            $data['countStock'] ?? true,
            $data['wholePacks'] ?? true,
        );
    }

    /** Whether what is on the list is ordered although it is not due. */
    public function asksForListed(): bool
    {
        return in_array($this->start, [self::COVER, self::VALUE, self::LISTED], true);
    }

    public function words(): string
    {
        $words = [
            match ($this->start) {
                self::COVER => sprintf('covering %g days', (float) $this->figure),
                self::VALUE => sprintf('enough for sales of %s', number_format((float) $this->figure)),
                default => lcfirst(self::STARTS[$this->start]),
            },
        ];
        if (self::ALL !== $this->history) {
            $words[] =
                self::RANGE === $this->history
                    ? sprintf('resting on %s to %s', $this->from, $this->to)
                    : 'resting on '.self::HISTORIES[$this->history];
        }
        if (!$this->countStock) {
            $words[] = 'stock on hand not counted';
        }
        if (!$this->wholePacks) {
            $words[] = 'cases split where allowed';
        }

        return implode(', ', $words);
    }
}
