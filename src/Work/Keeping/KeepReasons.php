<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Problems;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\KnownReason;
use TallBarrel\Store\Business\ReasonKind;
use TallBarrel\Store\Business\Reasons;
use TallBarrel\Store\Person\Person;

/** The reasons that can be chosen: all there are to be of a kind. What was said with an old one stays as it was. */
final readonly class KeepReasons
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Reasons $reasons,
        private AllOrNothing $whole,
        private Audit $audit,
    ) {
    }

    /**
     * @param array<string, string> $lines    a reason each, by the kind
     * @param Problems              $problems takes what stands in the way, by the kind; nothing is saved then
     */
    public function set(array $lines, Person $by, Problems $problems): void
    {
        $wanted = [];
        foreach (ReasonKind::cases() as $kind) {
            $wanted[$kind->value] = $this->read($kind, $lines[$kind->value] ?? '', $problems);
        }
        if (!$problems->areNone()) {
            return;
        }
        $this->whole->take(function () use ($wanted, $by): void {
            foreach (ReasonKind::cases() as $kind) {
                $this->keep($kind, $wanted[$kind->value], $by);
            }
        });
    }

    /** @return array<string, KnownReason> by their words in small letters */
    private function read(ReasonKind $kind, string $lines, Problems $problems): array
    {
        $wanted = [];
        foreach (preg_split('/\s*\R\s*/', trim($lines), -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $line) {
            $reason = $problems->attempt($kind->value, static fn (): KnownReason => new KnownReason($kind, $line));
            if (null !== $reason) {
                $wanted[mb_strtolower($reason->words)] ??= $reason;
            }
        }
        if ([] === $wanted) {
            $problems->refuse($kind->value, 'Leave at least one to choose.');
        }

        return $wanted;
    }

    /** @param array<string, KnownReason> $wanted */
    private function keep(ReasonKind $kind, array $wanted, Person $by): void
    {
        $gone = false;
        foreach ($this->reasons->of($kind) as $known) {
            $key = mb_strtolower($known->words);
            if (isset($wanted[$key]) && $wanted[$key]->words === $known->words) {
                unset($wanted[$key]);
            } else {
                $this->entities->remove($known);
                $gone = true;
            }
        }
        if (!$gone && [] === $wanted) {
            return;
        }
        // What goes is gone before what comes, so that one may be spelt anew.
        $this->entities->flush();
        foreach ($wanted as $reason) {
            $this->entities->persist($reason);
        }
        $this->audit->note($by, 'reasons', 'Set anew, '.$kind->words());
    }
}
