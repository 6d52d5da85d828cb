<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\OneTimeCode;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Person\Person;

/** One-time codes beside the password: asked for from now on, no longer, or taken at signing in. */
final readonly class UseCodes
{
    public function __construct(
        private EntityManagerInterface $entities,
        private AllOrNothing $whole,
        private Audit $audit,
        private PersonLetters $letters,
        private ClockInterface $clock,
    ) {
    }

    public function newSecret(): string
    {
        return OneTimeCode::secret(random_bytes(20));
    }

    /** @throws InvalidValue unless a code shows that the other device knows the secret */
    public function begin(Person $person, string $secret, string $code): void
    {
        $step = OneTimeCode::match($secret, $code, $this->clock->now(), null)
            ?? throw InvalidValue::because(sprintf('“%s” is not the code of this half minute.', $code));
        $this->whole->take(function () use ($person, $secret, $step): void {
            $person->useCodes($secret);
            $person->tookCode($step);
            $this->audit->note($person, 'person '.$person->id, 'One-time codes are asked for');
            $this->letters->tellOfChange($person, $person->email(), 'One-time codes are asked for from now on');
        });
    }

    public function end(Person $person): void
    {
        $this->whole->take(function () use ($person): void {
            $person->useCodes(null);
            $this->audit->note($person, 'person '.$person->id, 'One-time codes are asked for no longer');
            $this->letters->tellOfChange($person, $person->email(), 'One-time codes are asked for no longer');
        });
    }

    /** False for a wrong code, or one that served before. */
    public function take(Person $person, string $typed): bool
    {
        return $this->whole->take(function () use ($person, $typed): bool {
            $this->entities->lock($person, LockMode::PESSIMISTIC_WRITE);
            $this->entities->refresh($person);
            $step = OneTimeCode::match(
                (string) $person->codeSecret(),
                $typed,
                $this->clock->now(),
                $person->lastCodeStep(),
            );
            if (null !== $step) {
                $person->tookCode($step);
            }

            return null !== $step;
        });
    }
}
