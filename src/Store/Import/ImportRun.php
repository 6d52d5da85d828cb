<?php

declare(strict_types=1);

namespace TallBarrel\Store\Import;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Store\Person\Person;

/** A file somebody brought: checked, waiting for a yes, being applied, or done. */
#[ORM\Entity]
class ImportRun
{
    public const CHECKING = 'checking';
    public const CHECKED = 'checked';
    public const APPLYING = 'applying';
    public const APPLIED = 'applied';
    public const FAILED = 'failed';

    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Column(length: 12)]
    private string $state = self::CHECKING;

    #[ORM\Column(name: 'total_rows')]
    private int $rows = 0;

    #[ORM\Column]
    private int $done = 0;

    #[ORM\Column]
    private int $badRows = 0;

    /** @var list<array{int, string, string, string}> row, field, value, what is wrong; the first few hundred */
    #[ORM\Column(type: 'json')]
    private array $problems = [];

    /** @var list<list<string>> the first good rows, for a look */
    #[ORM\Column(type: 'json')]
    private array $sample = [];

    #[ORM\Column(length: 500)]
    private string $message = '';
    /** With which its numbers are read; null where the file does not tell. */
    #[ORM\Column(length: 1, nullable: true)]
    private ?string $decimalMark = null;

    /** @var array<string, string> how the file is written: encoding, delimiter, sheet */
    #[ORM\Column(type: 'json', options: ['default' => '{}'])]
    private array $layout = [];

    /** @var array<string, string> our column by their heading; '' for one that is left out */
    #[ORM\Column(type: 'json', options: ['default' => '{}'])]
    private array $mapping = [];

    /** @var array<int, array<string, string>> cells put right by hand, by line and our column */
    #[ORM\Column(type: 'json', options: ['default' => '[]'])]
    private array $mended = [];

    public function __construct(
        #[ORM\Column(length: 20)] public readonly string $kind,
        #[ORM\Column(length: 200)] public readonly string $filename,
        #[ORM\Column(length: 200)] public readonly string $path,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Person $by,
        #[ORM\Column(type: 'datetime_immutable')] private \DateTimeImmutable $at,
    ) {
    }

    public function at(): \DateTimeImmutable
    {
        return $this->at;
    }

    /**
     * @param list<array{int, string, string, string}> $problems
     * @param list<list<string>>                       $sample
     */
    public function checked(int $rows, int $badRows, array $problems, array $sample, ?string $decimalMark): void
    {
        $this->decimalMark = $decimalMark;
        $this->rows = $rows;
        $this->badRows = $badRows;
        $this->problems = $problems;
        $this->sample = $sample;
        $this->state = self::CHECKED;
    }

    /** @param array<string, string> $layout */
    public function isWrittenAs(array $layout): void
    {
        $this->layout = $layout;
    }

    /** @return array<string, string> */
    public function layout(): array
    {
        return $this->layout;
    }

    /** @param array<string, string> $mapping */
    public function means(array $mapping): void
    {
        $this->mapping = $mapping;
    }

    /** @return array<string, string> */
    public function mapping(): array
    {
        return $this->mapping;
    }

    public function mend(int $line, string $column, string $value): void
    {
        $this->mended[$line][$column] = $value;
    }

    /** @return array<int, array<string, string>> */
    public function mended(): array
    {
        return $this->mended;
    }

    public function start(): void
    {
        $this->state = self::APPLYING;
        $this->done = 0;
    }

    public function applied(string $message): void
    {
        $this->state = self::APPLIED;
        $this->done = $this->rows - $this->badRows;
        $this->message = $message;
    }

    public function failed(string $message): void
    {
        $this->state = self::FAILED;
        $this->message = mb_substr($message, 0, 500);
    }

    public function state(): string
    {
        return $this->state;
    }

    public function rows(): int
    {
        return $this->rows;
    }

    public function goodRows(): int
    {
        return $this->rows - $this->badRows;
    }

    public function badRows(): int
    {
        return $this->badRows;
    }

    public function done(): int
    {
        return $this->done;
    }

    /** @return list<array{int, string, string, string}> */
    public function problems(): array
    {
        return $this->problems;
    }

    /** @return list<list<string>> */
    public function sample(): array
    {
        return $this->sample;
    }

    public function decimalMark(): ?string
    {
        return $this->decimalMark;
    }

    public function message(): string
    {
        return $this->message;
    }
}
