<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use TallBarrel\Core\EmailAddress;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Person\PersonLink;
use TallBarrel\Store\Person\Visits;

/** A password is chosen: by a link that was sent, or in place of the one there is. OWASP ASVS 4.0.3, 2.1. */
final readonly class ChoosePassword
{
    public const LEAST = 12;
    private const MOST = 128;
    private const HOURS = [PersonLink::INVITATION => 168, PersonLink::FORGOTTEN => 1];
    /** Everybody knows that of the demo. */
    private const OF_THE_DEMO = 'larkmoor-honey';

    public function __construct(
        private EntityManagerInterface $entities,
        private UserPasswordHasherInterface $hasher,
        private CommonPasswords $common,
        private PersonLetters $letters,
        private Visits $visits,
        private AllOrNothing $whole,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /** @throws InvalidValue if it is too short, too long, or one that is tried first */
    public function check(#[\SensitiveParameter] string $password, string $email = ''): void
    {
        $length = mb_strlen($password);
        if ($length < self::LEAST || $length > self::MOST) {
            throw InvalidValue::because(
                sprintf('%d characters; a password has %d to %d of them.', $length, self::LEAST, self::MOST),
            );
        }
        if (self::OF_THE_DEMO === $password || $this->common->has($password)) {
            throw InvalidValue::because('This password is one that everybody tries first. Take another.');
        }
        if ('' !== $email && str_contains(mb_strtolower($password), explode('@', $email)[0])) {
            throw InvalidValue::because('The password holds your own address. Take another.');
        }
    }

    /** @throws InvalidValue */
    public function give(Person $person, #[\SensitiveParameter] string $password): void
    {
        $this->check($password, $person->email());
        $person->usePassword($this->hasher->hashPassword($person, $password));
    }

    /** Sends somebody a link to choose one; what was sent before no longer serves. */
    public function sendLink(Person $person, string $purpose): void
    {
        $now = $this->clock->now();
        foreach ($this->entities->getRepository(PersonLink::class)->findBy(['person' => $person]) as $link) {
            $link->end($now);
        }
        $token = bin2hex(random_bytes(20));
        $hours = self::HOURS[$purpose] ?? 1;
        $this->entities->persist(
            new PersonLink($person, $purpose, hash('sha256', $token), $now->modify('+'.$hours.' hours')),
        );
        $this->letters->sendLink($person, $token, $purpose, $hours);
    }

    /** Whoever forgot theirs is sent a link. Nobody is told whether there is such a person. */
    public function forgot(string $email): void
    {
        try {
            $address = EmailAddress::read($email);
        } catch (InvalidValue) {
            return;
        }
        $person = $this->entities->getRepository(Person::class)->findOneBy(['email' => $address]);
        if (null === $person || $person->isBlocked() || $person->email() !== $address) {
            return;
        }
        $this->whole->take(function () use ($person): void {
            $this->sendLink($person, PersonLink::FORGOTTEN);
            $this->audit->note(null, 'person '.$person->id, 'Asked for a new password');
        });
    }

    /**
     * The link a token leads to, still good.
     *
     * @throws Refused if there is none, or it was used or is over
     */
    public function link(string $token): PersonLink
    {
        $link = $this->entities
            ->getRepository(PersonLink::class)
            ->findOneBy(['hash' => hash('sha256', $token)])
                ?? throw new Refused('There is no such link. Ask for a new one.');
        $link->check($this->clock->now());

        return $link;
    }

    /**
     * @throws InvalidValue for a password that cannot be taken
     * @throws Refused      if the link was used in between
     */
    public function byLink(PersonLink $link, #[\SensitiveParameter] string $password): void
    {
        $this->check($password, $link->person->email());
        $this->whole->take(function () use ($link, $password): void {
            $this->entities->lock($link, LockMode::PESSIMISTIC_WRITE);
            $this->entities->refresh($link);
            $link->use($this->clock->now());
            $this->give($link->person, $password);
            $this->visits->endAll($link->person);
            $this->audit->note($link->person, 'person '.$link->person->id, 'Chose a password by the link sent');
            $this->letters->tellOfChange($link->person, $link->person->email(), 'A password was chosen for you');
        });
    }

    /**
     * @param int|null $visit    that goes on; all others end
     * @param Problems $problems takes what stands in the way, at old or new; nothing is saved then
     */
    public function change(
        Person $person,
        #[\SensitiveParameter] string $old,
        #[\SensitiveParameter] string $new,
        ?int $visit,
        Problems $problems,
    ): void {
        if (!$this->hasher->isPasswordValid($person, $old)) {
            $problems->refuse('old', 'That is not the password you have now.');
        }
        $problems->apply('new', fn () => $this->check($new, $person->email()));
        if (!$problems->areNone()) {
            return;
        }
        $this->whole->take(function () use ($person, $new, $visit): void {
            $this->give($person, $new);
            $this->visits->endAll($person, $visit);
            $this->audit->note($person, 'person '.$person->id, 'Changed the password');
            $this->letters->tellOfChange($person, $person->email(), 'Your password was changed');
        });
    }
}
