<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Talk\TalkLine;
use TallBarrel\Store\Talk\TalkLines;

/** Colleagues talk about a thing on the thing. */
final readonly class TalkAbout
{
    public const LONGEST = 1000;

    public function __construct(
        private EntityManagerInterface $entities,
        private AllOrNothing $whole,
        private TalkLines $lines,
        private ClockInterface $clock,
    ) {
    }

    /**
     * What one says where they were asked answers the question.
     *
     * @param Person|null $to    who is asked
     * @param string      $about a part of it; empty for all of it
     *
     * @throws Refused without words, with too many, or to oneself
     */
    public function say(string $subject, Person $by, string $words, ?Person $to, string $about = ''): void
    {
        $words = trim($words);
        if ('' === $words) {
            throw new Refused('Say something first.');
        }
        if (mb_strlen($words) > self::LONGEST) {
            throw new Refused(sprintf('At most %d characters fit; these are %d.', self::LONGEST, mb_strlen($words)));
        }
        if ($to?->id === $by->id) {
            throw new Refused('Asking oneself waits for nobody; choose a colleague, or nobody.');
        }
        $this->whole->take(function () use ($subject, $by, $words, $to, $about): void {
            foreach ($this->lines->of($subject) as $line) {
                $line->isAnsweredBy($by, $about);
            }
            $this->entities->persist(new TalkLine($subject, $by, $this->clock->now(), $words, $to, $about));
        });
    }

    /** @throws Refused to others than who asked and who was asked */
    public function settle(int $id, Person $person): TalkLine
    {
        return $this->whole->take(function () use ($id, $person): TalkLine {
            $line = $this->entities->find(TalkLine::class, $id) ?? throw new Refused('That is gone.');
            $line->settle($person);

            return $line;
        });
    }
}
