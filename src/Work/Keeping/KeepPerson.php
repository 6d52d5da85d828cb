<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Doctrine\ORM\Query;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\EmailAddress;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Person\PersonLink;
use TallBarrel\Store\Person\Role;
use TallBarrel\Store\Person\Visits;

/** Somebody is invited, described anew, blocked when they leave, or let in again. */
final readonly class KeepPerson
{
    public function __construct(
        private EntityManagerInterface $entities,
        private ChoosePassword $passwords,
        private PersonLetters $letters,
        private Visits $visits,
        private AllOrNothing $whole,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /** Invites somebody by a link to choose a password; null where something stands in the way. */
    public function invite(PersonDetails $details, Person $by, Problems $problems): ?Person
    {
        $this->check($details, null, $problems);
        if (!$problems->areNone()) {
            return null;
        }

        return $this->whole->take(function () use ($details, $by): Person {
            $person = new Person(
                $details->email,
                $details->name,
                $details->role,
                Role::Owner === $details->role ? null : BigDecimal::zero(),
            );
            $this->describe($person, $details);
            $this->entities->persist($person);
            $this->entities->flush();
            $this->passwords->sendLink($person, PersonLink::INVITATION);
            $this->audit->note($by, 'person '.$person->id, 'Invited as '.$details->role->value);

            return $person;
        });
    }

    public function change(Person $person, PersonDetails $details, Person $by, Problems $problems): void
    {
        $this->check($details, $person, $problems);
        $this->whole->take(function () use ($person, $details, $by, $problems): void {
            if (Role::Owner !== $details->role) {
                $this->leaveAnOwner($person, 'role', $problems);
            }
            if (!$problems->areNone()) {
                return;
            }
            $before = sprintf('%s, %s, %s', $person->name(), $person->email(), $person->role()->value);
            $address = $person->email();
            $roleChanged = $person->role() !== $details->role;
            $this->describe($person, $details);
            if ($roleChanged) {
                $this->visits->endAll($person);
            }
            if ($address !== $person->email()) {
                $this->letters->tellOfChange($person, $address, sprintf('You sign in as %s now', $person->email()));
            }
            $after = sprintf('%s, %s, %s', $person->name(), $person->email(), $person->role()->value);
            $this->audit->note(
                $by,
                'person '.$person->id,
                $before === $after ? 'Changed' : sprintf('Changed from %s to %s', $before, $after),
            );
        });
    }

    /** @throws Refused for the last owner, or oneself */
    public function block(Person $person, Person $by): void
    {
        if ($person->id === $by->id) {
            throw new Refused('You cannot block yourself; another owner can.');
        }
        $this->whole->take(function () use ($person, $by): void {
            $problems = new Problems();
            $this->leaveAnOwner($person, '', $problems);
            if (!$problems->areNone()) {
                throw new Refused((string) $problems->at(''));
            }
            $person->block($this->clock->now());
            $this->visits->endAll($person);
            $this->audit->note($by, 'person '.$person->id, 'Blocked');
        });
    }

    public function unblock(Person $person, Person $by): void
    {
        $this->whole->take(function () use ($person, $by): void {
            $person->unblock();
            $this->audit->note($by, 'person '.$person->id, 'Let in again');
        });
    }

    /** Another link, in place of the one that was sent. */
    public function inviteAgain(Person $person, Person $by): void
    {
        $this->whole->take(function () use ($person, $by): void {
            $this->passwords->sendLink(
                $person,
                $person->hasPassword() ? PersonLink::FORGOTTEN : PersonLink::INVITATION,
            );
            $this->audit->note($by, 'person '.$person->id, 'Was sent a link to choose a password');
        });
    }

    /** The codes of a lost device are asked for no longer. */
    public function dropCodes(Person $person, Person $by): void
    {
        $this->whole->take(function () use ($person, $by): void {
            $person->useCodes(null);
            $this->visits->endAll($person, $person->id === $by->id ? null : 0);
            $this->audit->note($by, 'person '.$person->id, 'One-time codes are asked for no longer');
        });
    }

    private function check(PersonDetails $details, ?Person $known, Problems $problems): void
    {
        $problems->apply('sees', static fn () => Person::mustSee($details->site, $details->sees));
        if ('' === trim($details->name)) {
            $problems->refuse('name', 'A person needs a name.');
        }
        $address = $problems->attempt('email', static fn (): string => EmailAddress::read($details->email));
        $other = null === $address
            ? null
            : $this->entities->getRepository(Person::class)->findOneBy(['email' => $address]);
        if (null !== $other && $other !== $known) {
            $problems->refuse('email', sprintf('%s has this address already.', $other->name()));
        }
        if (null !== $known && $details->approver === $known) {
            $problems->refuse('approver', 'Nobody says yes to themselves.');
        }
    }

    /** Of two owners who block or demote each other at once the second waits here, and is told. */
    private function leaveAnOwner(Person $person, string $place, Problems $problems): void
    {
        /** @var list<Person> $owners as they are now, not as they were when the page was asked for */
        $owners = $this->entities->createQuery('SELECT p FROM '.Person::class.' p WHERE p.role = :owner')
            ->setParameter('owner', Role::Owner)
            ->setLockMode(LockMode::PESSIMISTIC_WRITE)
            ->setHint(Query::HINT_REFRESH, true)
            ->getResult();
        $others = array_filter(
            $owners,
            static fn (Person $one): bool => $one !== $person && !$one->isBlocked() && $one->hasPassword(),
        );
        if (Role::Owner === $person->role() && [] === $others) {
            $problems->refuse(
                $place,
                sprintf('%s is the last owner who can sign in; make somebody else owner first.', $person->name()),
            );
        }
    }

    private function describe(Person $person, PersonDetails $details): void
    {
        $person->introduce($details->name, $details->email, $details->role);
        $person->work($details->site, $details->approver, $details->handlesAll);
        $person->sees($details->sees);
    }
}
