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

    /** @param Problems $problems takes what stands in the way, by the kind; nothing is saved then */
    public function set(ReasonKind $kind, string $lines, Person $by, Problems $problems): void
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
        if ($problems->concern($kind->value)) {
            return;
        }
        $this->whole->take(function () use ($kind, $wanted, $by): void {
            foreach ($this->reasons->of($kind) as $known) {
                $key = mb_strtolower($known->words);
                if (isset($wanted[$key]) && $wanted[$key]->words === $known->words) {
                    unset($wanted[$key]);
                } else {
                    $this->entities->remove($known);
                }
            }
            // What goes is gone before what comes, so that one may be spelt anew.
            $this->entities->flush();
            foreach ($wanted as $reason) {
                $this->entities->persist($reason);
            }
            $this->audit->note($by, 'reasons', 'Set anew, '.$kind->words());
        });
    }
}
