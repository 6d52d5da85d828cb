<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;

/** The next number of a series of papers, such as purchase orders, and how it is written. */
#[ORM\Entity]
class NumberSeries
{
    public const ORDERS = 'PO';
    public const TRANSFERS = 'T';
    public const RECEIPTS = 'R';
    public const ROUNDS = 'Q';
    public const AGREEMENTS = 'A';
    public const RETURNS = 'B';
    public const CHARGES = 'C';
    public const BANK_FILES = 'F';
    /** What each series numbers. */
    public const WORDS = [
        self::ORDERS => 'Purchase orders',
        self::ROUNDS => 'Quote rounds',
        self::AGREEMENTS => 'Agreements',
        self::RECEIPTS => 'Receipts',
        self::TRANSFERS => 'Transfers',
        self::RETURNS => 'Goods that go back',
        self::CHARGES => 'Charges spread over what came',
        self::BANK_FILES => 'Files for the bank',
    ];

    private const FIRST = 1001;
    private const MOST = 9_999_999;

    /** What stands before the number; null for the name of the series. */
    #[ORM\Column(length: 8, nullable: true)]
    private ?string $prefix = null;

    /** Whether the year stands before the number, which begins anew with it. */
    #[ORM\Column(options: ['default' => false])]
    private bool $byYear = false;

    /** The year the next number belongs to. */
    #[ORM\Column(nullable: true)]
    private ?int $year = null;

    public function __construct(
        #[ORM\Id, ORM\Column(length: 10)] public readonly string $name,
        #[ORM\Column] private int $next = self::FIRST,
    ) {
    }

    /**
     * @param int $least the lowest number that was not given out yet
     *
     * @throws InvalidValue if the prefix is not 1 to 8 letters and digits, or a number would be given out twice
     */
    public function write(string $prefix, int $next, bool $byYear, int $year, int $least): void
    {
        if (1 !== preg_match('/^[\p{L}\p{N}]{1,8}$/u', $prefix)) {
            throw InvalidValue::because(sprintf('“%s” is no prefix; expected 1 to 8 letters and digits.', $prefix));
        }
        if ($next < $least || $next > self::MOST) {
            throw InvalidValue::because(
                sprintf('%d was given out or is too large; expected %d to %d.', $next, $least, self::MOST),
            );
        }
        $this->prefix = $prefix;
        $this->next = $next;
        $this->byYear = $byYear;
        $this->year = $byYear ? $year : null;
    }

    public function prefix(): string
    {
        return $this->prefix ?? $this->name;
    }

    public function next(): int
    {
        return $this->next;
    }

    public function isByYear(): bool
    {
        return $this->byYear;
    }

    /** What the next paper will be called. */
    public function written(int $year): string
    {
        return self::number($this->prefix(), $this->byYear ? $year : null, $this->numberIn($year));
    }

    private function numberIn(int $year): int
    {
        return $this->byYear && $this->year !== $year ? 1 : $this->next;
    }

    /**
     * Takes the next number, inside the caller's transaction; a rolled-back one is given out again.
     *
     * @param \DateTimeImmutable $today tells the year, where numbers go by it
     */
    public static function take(Connection $connection, string $series, \DateTimeImmutable $today): string
    {
        $year = (int) $today->format('Y');
        $connection->executeStatement(
            'INSERT INTO number_series (name, next, by_year) VALUES (?, ?, 0)
             ON DUPLICATE KEY UPDATE next = IF(by_year = 1 AND COALESCE(year, 0) <> ?, 2, next + 1),
                year = IF(by_year = 1, ?, NULL)',
            [$series, self::FIRST + 1, $year, $year],
        );
        /** @var array{next: int, prefix: string|null, by_year: int} $row */
        $row = $connection->fetchAssociative(
            'SELECT next, prefix, by_year FROM number_series WHERE name = ?',
            [$series],
        );

        return self::number($row['prefix'] ?? $series, 1 === $row['by_year'] ? $year : null, $row['next'] - 1);
    }

    /**
     * Whether a number could be given out by one of the series, now or later.
     *
     * @param list<self> $kept of those that somebody wrote otherwise
     */
    public static function couldGive(string $number, array $kept): bool
    {
        $prefixes = array_combine(array_keys(self::WORDS), array_keys(self::WORDS));
        foreach ($kept as $series) {
            $prefixes[$series->name] = $series->prefix();
        }
        foreach ($prefixes as $prefix) {
            if (0 === strncasecmp($number, $prefix.'-', strlen($prefix) + 1)) {
                return true;
            }
        }

        return false;
    }

    private static function number(string $prefix, ?int $year, int $number): string
    {
        return null === $year ? $prefix.'-'.$number : sprintf('%s-%d-%04d', $prefix, $year, $number);
    }
}
