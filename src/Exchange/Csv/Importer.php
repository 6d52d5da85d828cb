<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use Doctrine\DBAL\Exception\ConnectionException;
use Doctrine\DBAL\Exception\RetryableException;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Messenger\MessageBusInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Numerals;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Import\ImportRun;
use TallBarrel\Store\Import\KnownHeadings;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Keeping\BroughtTable;
use TallBarrel\Work\Keeping\FileReading;
use TallBarrel\Work\Keeping\ImportForm;
use TallBarrel\Work\Keeping\Imports;
use TallBarrel\Work\Keeping\ImportToApply;
use TallBarrel\Work\Keeping\KeptFiles;
use TallBarrel\Work\Keeping\PlainReason;

/** Checks a file line by line and says all that is wrong; applies it, in one transaction, when told to. */
final readonly class Importer implements Imports
{
    private const ORDER = ['sites', 'items', 'suppliers', 'rates', 'offers', 'stock', 'sales', 'plans', 'promises'];
    private const PROBLEMS_SHOWN = 300;
    private const SAMPLE = 8;
    private const FIRST = 4;
    private const PROGRESS_EVERY = 2000;

    /** @param iterable<ImportKind> $kinds */
    public function __construct(
        #[AutowireIterator(ImportKind::class)] private iterable $kinds,
        private EntityManagerInterface $entities,
        private KeptFiles $files,
        private KnownHeadings $headings,
        private MessageBusInterface $bus,
        private ClockInterface $clock,
        private RateImport $rates,
    ) {
    }

    public function forms(): array
    {
        $forms = [];
        foreach (self::ORDER as $name) {
            $kind = $this->kind($name);
            $forms[$name] = new ImportForm($name, $kind->title(), $kind->columns(), $kind->sample());
        }

        return $forms;
    }

    private function kind(string $name): ImportKind
    {
        foreach ($this->kinds as $kind) {
            if ($kind->name() === $name) {
                return $kind;
            }
        }
        throw new \LogicException('There is no import of '.$name);
    }

    public function check(string $kind, string $file, string $filename, Person $person): ImportRun
    {
        $kind = $this->kind($kind);
        if (filesize($file) > self::MOST_BYTES) {
            throw InvalidValue::because(
                sprintf(
                    '%s has %d MB; at most %d MB can be read at once. Split it, by year for example.',
                    $filename,
                    (int) ceil(filesize($file) / 1048576),
                    self::MOST_BYTES / 1048576,
                ),
            );
        }
        if ('rates' === $kind->name()) {
            $file = $this->rates->asCsv($file);
        }
        $kept = $this->files->keep($file);
        $run = new ImportRun($kind->name(), mb_substr($filename, 0, 200), $kept, $person, $this->clock->now());
        try {
            [$csv, $mapping] = $this->bestSheet($kept, $kind);
            if ([] === array_filter($mapping, static fn (string $column): bool => '' !== $column)) {
                throw InvalidValue::because(sprintf(
                    '%s has none of the columns of this list, nor any like them. Its first line must name its columns: '
                    .'%s has %s.',
                    $filename,
                    '' === $csv->layout->sheet ? 'it' : 'the sheet “'.$csv->layout->sheet.'”',
                    implode(', ', array_map(static fn (string $one): string => '“'.mb_substr($one, 0, 30).'”',
                        array_slice($csv->headings, 0, 8))),
                ));
            }
            $run->isWrittenAs($csv->layout->chosen());
            $run->means($mapping);
            $this->read($run, CsvFile::open($kept, $run->layout(), $mapping), null);
        } catch (\Throwable $problem) {
            $this->forget($run);
            throw $problem;
        }
        $this->entities->persist($run);
        $this->entities->flush();

        return $run;
    }

    /**
     * The first sheet that has all that is needed; where none has, the one with most of our columns.
     *
     * @return array{CsvFile, array<string, string>} with what its headings mean
     */
    private function bestSheet(string $path, ImportKind $kind): array
    {
        $known = $this->headings->of($kind->name());
        $columns = array_keys($kind->columns());
        $needed = self::needed($kind);
        $best = null;
        $sheets = FileLayout::of($path)->sheets;
        foreach ([] === $sheets ? [''] : $sheets as $sheet) {
            $csv = CsvFile::open($path, ['sheet' => $sheet]);
            $mapping = HeadingGuess::of($csv->headings, $columns, $known);
            $meant = array_filter($mapping, static fn (string $column): bool => '' !== $column);
            $score = [] === array_diff($needed, $meant) ? \PHP_INT_MAX : count($meant);
            if (null === $best || $score > $best[2]) {
                $best = [$csv, $mapping, $score];
            }
            if (\PHP_INT_MAX === $score) {
                break;
            }
        }

        return [$best[0], $best[1]];
    }

    public function checkAgain(ImportRun $run, FileReading $reading): void
    {
        if (ImportRun::CHECKED !== $run->state()) {
            throw new Refused('This file has been settled already; bring it again.');
        }
        $mark = null === $reading->mark ? null : Numerals::with($reading->mark)->mark;
        $layout = $reading->layout + $run->layout();
        $csv = CsvFile::open($run->path, $layout);
        $columns = $this->kind($run->kind)->columns();
        $mapping = $layout === $run->layout()
            ? $run->mapping()
            : HeadingGuess::of($csv->headings, array_keys($columns), $this->headings->of($run->kind));
        if (null !== $reading->mapping) {
            $mapping = $this->said($reading->mapping, $columns);
            $this->headings->remember($run->kind, $mapping);
        }
        $run->isWrittenAs($csv->layout->chosen());
        $run->means($mapping);
        foreach ($reading->mended as $line => $cells) {
            foreach ($cells as $column => $value) {
                $run->mend($line, $column, $value);
            }
        }
        $this->read($run, CsvFile::open($run->path, $run->layout(), $mapping), $mark ?? $run->decimalMark());
        $this->entities->flush();
    }

    /**
     * @param array<string, string> $said    column by heading
     * @param array<string, string> $columns ours
     *
     * @return array<string, string>
     *
     * @throws InvalidValue if two headings are to mean the same
     */
    private function said(array $said, array $columns): array
    {
        $mapping = $taken = [];
        foreach ($said as $heading => $column) {
            $key = CsvFile::key((string) $heading);
            if ('' !== $column && isset($columns[$column])) {
                if (isset($taken[$column])) {
                    throw InvalidValue::because(
                        sprintf('“%s” and “%s” cannot both be %s.', $taken[$column], $heading, $column),
                    );
                }
                $taken[$column] = (string) $heading;
            }
            $mapping[$key] = isset($columns[$column]) ? $column : '';
        }

        return $mapping;
    }

    public function file(ImportRun $run): BroughtTable
    {
        $csv = $this->csv($run);
        $first = [];
        foreach ($csv->lines() as [$cells]) {
            $first[] = $cells;
            if (count($first) >= self::FIRST) {
                break;
            }
        }
        $headings = [];
        foreach ($csv->headings as $heading) {
            $headings[CsvFile::key($heading)] ??= $heading;
        }

        return new BroughtTable(
            $headings,
            $csv->layout->encoding,
            $csv->layout->delimiter,
            $csv->layout->sheet,
            $csv->layout->sheets,
            $this->missing($run),
            $first,
            FileLayout::ENCODINGS,
        );
    }

    /** @return list<string> columns that are needed and that no heading means */
    private function missing(ImportRun $run): array
    {
        return array_values(array_diff(self::needed($this->kind($run->kind)), $run->mapping()));
    }

    /** @return list<string> columns that no row can be without: what is said of them ends in a star */
    private static function needed(ImportKind $kind): array
    {
        return array_keys(
            array_filter($kind->columns(), static fn (string $words): bool => str_ends_with($words, '*')),
        );
    }

    public function badRows(ImportRun $run): iterable
    {
        $csv = $this->csv($run);
        yield [...$csv->headings, 'reason'];
        $bad = [];
        foreach ($this->readRows($this->kind($run->kind), $run, $csv) as $row) {
            if (!$row->isGood()) {
                $bad[$row->line] = implode('; ', array_map(
                    static fn (array $problem): string => trim($problem[1].': '.$problem[3], ': '),
                    $row->problems,
                ));
            }
        }
        foreach ($csv->lines() as $line => [$cells]) {
            if (isset($bad[$line])) {
                foreach ($run->mended()[$line] ?? [] as $column => $value) {
                    $at = array_search($column, $csv->columns, true);
                    if (is_int($at)) {
                        $cells[$at] = $value;
                    }
                }
                yield [...$cells, $bad[$line]];
            }
        }
    }

    public function all(string $kind): iterable
    {
        $kind = $this->kind($kind);
        yield array_keys($kind->columns());
        yield from $kind->all();
    }

    private function csv(ImportRun $run): CsvFile
    {
        if (!is_file($run->path)) {
            throw InvalidValue::because('The file is no longer here; bring it again.');
        }

        return CsvFile::open($run->path, $run->layout(), $run->mapping());
    }

    /** @param string|null $mark decimal mark, where it is known */
    private function read(ImportRun $run, CsvFile $csv, ?string $mark): void
    {
        $rows = $bad = 0;
        $problems = $sample = [];
        $columns = array_values(array_filter($csv->columns, static fn (string $column): bool => '' !== $column));
        $numerals = null === $mark ? $csv->numerals() : Numerals::with($mark);
        if ([] === $this->missing($run)) {
            $run->checked(0, 0, [], [], $numerals->mark);
            foreach ($this->readRows($this->kind($run->kind), $run, $csv) as $row) {
                ++$rows;
                if ($row->isGood()) {
                    if (count($sample) < self::SAMPLE) {
                        $sample[] = array_map($row->text(...), $columns);
                    }
                } else {
                    ++$bad;
                    if (count($problems) < self::PROBLEMS_SHOWN) {
                        array_push($problems, ...$row->problems);
                    }
                }
            }
        }
        $run->checked($rows, $bad, $problems, [$columns, ...$sample], $numerals->mark);
    }

    /**
     * Rows as they are read, with what was put right by hand.
     *
     * @return iterable<Row>
     */
    private function readRows(ImportKind $kind, ImportRun $run, CsvFile $csv): iterable
    {
        $read = $kind->reader();
        $numerals = null === $run->decimalMark() ? Numerals::unknown() : Numerals::with($run->decimalMark());
        $mended = $run->mended();
        foreach ($csv->rows() as $line => $values) {
            $row = new Row($line, ($mended[$line] ?? []) + $values, $numerals);
            $row->made = $read($row);
            yield $row;
        }
    }

    private function forget(ImportRun $run): void
    {
        $this->files->remove($run->path);
        $this->files->remove(CsvFile::besides($run->path));
        $this->files->remove($this->progressFile($run));
    }

    public function askToApply(ImportRun $run): bool
    {
        return $this->entities->wrapInTransaction(function () use ($run): bool {
            $this->entities->lock($run, LockMode::PESSIMISTIC_WRITE);
            $this->entities->refresh($run);
            if (ImportRun::CHECKED !== $run->state() || 0 === $run->goodRows()) {
                return false;
            }
            $run->start();
            $this->entities->flush();
            $this->report($run, 0);
            $this->bus->dispatch(new ImportToApply($run->id));

            return true;
        });
    }

    #[AsMessageHandler]
    public function carryOut(ImportToApply $message): void
    {
        $this->apply($message->run);
    }

    /**
     * Applies all good lines of a run that is to be applied, or none. Taken up again after a worker died, it begins
     * anew.
     */
    private function apply(int $id): void
    {
        $run = $this->entities->find(ImportRun::class, $id);
        if (null === $run || ImportRun::APPLYING !== $run->state()) {
            return;
        }
        $kind = $this->kind($run->kind);
        $start = microtime(true);
        $connection = $this->entities->getConnection();
        $person = $run->by;
        $connection->beginTransaction();
        try {
            $kind->apply($this->goodRows($kind, $run), $person);
            $this->entities->clear();
            // That it was applied is written with what was: whoever takes it up again finds it done.
            $run = $this->again($id);
            $run->applied(sprintf(
                '%s rows are in, after %.1f s.',
                number_format($run->goodRows()),
                microtime(true) - $start,
            ));
            $this->entities->flush();
            $connection->commit();
        } catch (\Throwable $error) {
            $connection->rollBack();
            $this->entities->clear();
            if ($error instanceof RetryableException || $error instanceof ConnectionException) {
                throw $error;
            }
            $run = $this->again($id);
            $run->failed('Nothing was applied: '.PlainReason::of($error));
            $this->entities->flush();
        }
        $this->forget($run);
    }

    private function again(int $id): ImportRun
    {
        return $this->entities->find(ImportRun::class, $id) ?? throw new \LogicException('The run is gone.');
    }

    public function progress(ImportRun $run): int
    {
        return is_file($this->progressFile($run)) ? (int) file_get_contents($this->progressFile($run)) : $run->done();
    }

    /** @return iterable<array<mixed>> */
    private function goodRows(ImportKind $kind, ImportRun $run): iterable
    {
        $done = 0;
        foreach ($this->readRows($kind, $run, $this->csv($run)) as $row) {
            if ($row->isGood() && null !== $row->made) {
                yield $row->made;
                if (0 === ++$done % self::PROGRESS_EVERY) {
                    $this->report($run, $done);
                }
            }
        }
        if ($done !== $run->goodRows()) {
            throw new \RuntimeException(
                sprintf(
                    '%d rows were good when the file was checked, %d are now; check it again.',
                    $run->goodRows(),
                    $done,
                ),
            );
        }
    }

    /** Kept beside the file, not in the database: the transaction under way hides what it writes. */
    private function report(ImportRun $run, int $done): void
    {
        file_put_contents($this->progressFile($run), (string) $done);
    }

    private function progressFile(ImportRun $run): string
    {
        return $run->path.'.done';
    }
}
