<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Ordering\PaperPart;
use TallBarrel\Core\Problems;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\NumberSeries;
use TallBarrel\Store\Person\Person;

/** How papers are numbered, and the sentences that are kept for them. */
final readonly class SetPaper
{
    public function __construct(
        private EntityManagerInterface $entities,
        private CurrentBusiness $business,
        private AllOrNothing $whole,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /** In short, to tell whether it was changed; which number is next does not count, papers take those themselves. */
    public function standing(): string
    {
        $series = $this->entities->getRepository(NumberSeries::class)->findBy([], ['name' => 'ASC']);

        return hash('xxh128', serialize([
            array_map(static fn (NumberSeries $one): array => [$one->name, $one->prefix(), $one->isByYear()], $series),
            $this->business->get()->sentences(),
            $this->business->get()->paperParts(),
        ]));
    }

    /**
     * @param array<string, AskedNumbers> $numbers   by series
     * @param list<string>                $sentences
     * @param list<PaperPart>             $parts     of the lines of an order
     * @param string                      $seen      what stood there when it was looked at: standing()
     * @param Problems                    $problems  takes what stands in the way, by place; nothing is saved then
     */
    public function set(
        array $numbers,
        array $sentences,
        array $parts,
        string $seen,
        Person $by,
        Problems $problems,
    ): void {
        if ($seen !== $this->standing()) {
            $problems->refuse(
                '',
                'Somebody else changed this page meanwhile. What you typed stands here; save again to have it so.',
            );
        }
        $problems->apply('sentences', fn () => $this->business->get()->keepSentences($sentences));
        $this->business->get()->writeOnLines($parts);
        $prefixes = [];
        foreach ($numbers as $name => $asked) {
            $prefix = mb_strtolower($asked->prefix);
            if (isset($prefixes[$prefix])) {
                $problems->refuse('prefix-'.$name, sprintf('“%s” stands before two kinds of papers.', $asked->prefix));
            }
            $prefixes[$prefix] = true;
        }
        $this->whole->take(function () use ($numbers, $by, $problems): void {
            $year = (int) $this->clock->now()->format('Y');
            foreach ($numbers as $name => $asked) {
                $series = $this->entities->find(NumberSeries::class, $name, LockMode::PESSIMISTIC_WRITE);
                if (null === $series) {
                    $series = new NumberSeries($name);
                    $this->entities->persist($series);
                }
                // With another prefix, or once a year is part of it, numbers begin anew.
                $anew = $asked->prefix !== $series->prefix() || $asked->byYear !== $series->isByYear();
                $problems->apply('next-'.$name, static fn () => $series->write(
                    $asked->prefix,
                    $asked->next ?? $series->next(),
                    $asked->byYear,
                    $year,
                    $anew ? 1 : $series->next(),
                ));
            }
            if ($problems->areNone()) {
                $this->audit->note($by, 'paper', 'Numbers, sentences and lines changed');
            } else {
                $this->entities->clear();
            }
        });
    }
}
