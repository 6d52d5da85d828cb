<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

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
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Keeping\ImportForm;
use TallBarrel\Work\Keeping\Imports;
use TallBarrel\Work\Keeping\ImportToApply;
use TallBarrel\Work\Keeping\KeptFiles;

/** Checks a file line by line and says all that is wrong; applies it, in one transaction, when told to. */
final readonly class Importer implements Imports
{
    private const ORDER = ['items', 'suppliers', 'rates', 'offers', 'stock', 'sales', 'plans'];
    private const PROBLEMS_SHOWN = 300;
    private const SAMPLE = 8;
    private const PROGRESS_EVERY = 2000;

    /** @param iterable<ImportKind> $kinds */
    public function __construct(
        #[AutowireIterator(ImportKind::class)] private iterable $kinds,
        private EntityManagerInterface $entities,
        private KeptFiles $files,
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
        $csv = CsvFile::open($file);
        $needed = array_keys(
            array_filter($kind->columns(), static fn (string $words): bool => str_ends_with($words, '*')),
        );
        $missing = array_diff($needed, $csv->columns);
        if ([] !== $missing) {
            throw InvalidValue::because(
                sprintf(
                    '%s has no column “%s”. Its first line must name the columns: %s.',
                    $filename,
                    implode('”, “', $missing),
                    implode(', ', array_keys($kind->columns())),
                ),
            );
        }
        $kept = $this->files->keep($file);
        $run = new ImportRun($kind->name(), mb_substr($filename, 0, 200), $kept, $person, $this->clock->now());
        $this->read($run, $csv, $csv->numerals());
        $this->entities->persist($run);
        $this->entities->flush();

        return $run;
    }

    public function checkAgain(ImportRun $run, string $decimalMark): void
    {
        if (ImportRun::CHECKED !== $run->state()) {
            throw new Refused('This file has been settled already; bring it again.');
        }
        $this->read($run, CsvFile::open($run->path), Numerals::with($decimalMark));
        $this->entities->flush();
    }

    private function read(ImportRun $run, CsvFile $csv, Numerals $numerals): void
    {
        $rows = $bad = 0;
        $problems = $sample = [];
        $read = $this->kind($run->kind)->reader();
        foreach ($csv->rows() as $line => $values) {
            $row = new Row($line, $values, $numerals);
            $read($row);
            ++$rows;
            if ($row->isGood()) {
                if (count($sample) < self::SAMPLE) {
                    $sample[] = array_values($values);
                }
            } else {
                ++$bad;
                if (count($problems) < self::PROBLEMS_SHOWN) {
                    array_push($problems, ...$row->problems);
                }
            }
        }
        $run->checked($rows, $bad, $problems, [$csv->columns, ...$sample], $numerals->mark);
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
        $message = $failure = null;
        $connection->beginTransaction();
        try {
            $kind->apply($this->goodRows($kind, $run), $person);
            $connection->commit();
            $message = sprintf(
                '%s rows are in, after %.1f s.',
                number_format($run->goodRows()),
                microtime(true) - $start,
            );
        } catch (\Throwable $error) {
            $connection->rollBack();
            $failure = $error->getMessage();
        }
        $this->entities->clear();
        $run = $this->entities->find(ImportRun::class, $id) ?? throw new \LogicException('The run is gone.');
        if (null !== $message) {
            $run->applied($message);
        } else {
            $run->failed('Nothing was applied: '.$failure);
        }
        $this->entities->flush();
        $this->files->remove($run->path);
        $this->files->remove($this->progressFile($run));
    }

    public function progress(ImportRun $run): int
    {
        return is_file($this->progressFile($run)) ? (int) file_get_contents($this->progressFile($run)) : $run->done();
    }

    /** @return iterable<array<mixed>> */
    private function goodRows(ImportKind $kind, ImportRun $run): iterable
    {
        $read = $kind->reader();
        $numerals = null === $run->decimalMark() ? Numerals::unknown() : Numerals::with($run->decimalMark());
        $done = 0;
        foreach (CsvFile::open($run->path)->rows() as $line => $values) {
            $row = new Row($line, $values, $numerals);
            $made = $read($row);
            if ($row->isGood() && null !== $made) {
                yield $made;
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
