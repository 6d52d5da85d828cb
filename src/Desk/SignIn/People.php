<?php

declare(strict_types=1);

namespace TallBarrel\Desk\SignIn;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpFoundation\RequestStack;
use Symfony\Component\PasswordHasher\Hasher\PasswordHasherFactoryInterface;
use Symfony\Component\Security\Core\Exception\UnsupportedUserException;
use Symfony\Component\Security\Core\Exception\UserNotFoundException;
use Symfony\Component\Security\Core\User\UserInterface;
use Symfony\Component\Security\Core\User\UserProviderInterface;
use TallBarrel\Core\VisitLength;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Person\Visits;

/**
 * Who may sign in, and who is still here: whoever was blocked, or whose visit was ended elsewhere, is out with the next
 * page.
 *
 * @implements UserProviderInterface<Person>
 */
final readonly class People implements UserProviderInterface
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Visits $visits,
        private RequestStack $requests,
        private CurrentBusiness $business,
        private PasswordHasherFactoryInterface $hashers,
    ) {
    }

    /** As an address is compared, however it was typed. */
    public static function spelling(string $typed): string
    {
        return mb_strtolower(trim(mb_scrub($typed)));
    }

    public function loadUserByIdentifier(string $identifier): UserInterface
    {
        $person = $this->by(self::spelling($identifier));
        if (null === $person || $person->isBlocked() || !$person->hasPassword()) {
            // Takes as long as a wrong password, so that nobody learns by the clock who works here.
            $this->hashers->getPasswordHasher(Person::class)->hash('nobody');
            throw new UserNotFoundException();
        }

        return $this->allowed($person);
    }

    /** Whose an address is; null for nobody's. */
    public function idOf(string $spelling): ?int
    {
        return $this->by($spelling)?->id;
    }

    private function by(string $spelling): ?Person
    {
        $person = $this->entities->getRepository(Person::class)->findOneBy(['email' => $spelling]);

        // The database takes "á" for "a"; an address has one spelling.
        return $person?->email() === $spelling ? $person : null;
    }

    public function refreshUser(UserInterface $user): UserInterface
    {
        if (!$user instanceof Person) {
            throw new UnsupportedUserException();
        }
        $visit = $this->requests->getSession()->get(Arrival::VISIT);

        return $this->allowed(
            $this->visits->person(
                $user->id,
                is_int($visit) ? $visit : null,
                $this->business->find()?->visitLength() ?? VisitLength::usual(),
            ) ?? throw new UserNotFoundException(),
        );
    }

    /** With what their role may do in this business. */
    private function allowed(Person $person): Person
    {
        $business = $this->business->find();
        if (null !== $business) {
            $person->mayDo($business->rightsOf($person->role()));
        }

        return $person;
    }

    public function supportsClass(string $class): bool
    {
        return is_a($class, Person::class, true);
    }
}
