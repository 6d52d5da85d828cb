<?php

declare(strict_types=1);

namespace TallBarrel\Desk\SignIn;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpFoundation\RequestStack;
use Symfony\Component\Security\Core\Exception\UnsupportedUserException;
use Symfony\Component\Security\Core\Exception\UserNotFoundException;
use Symfony\Component\Security\Core\User\UserInterface;
use Symfony\Component\Security\Core\User\UserProviderInterface;
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
    ) {
    }

    public function loadUserByIdentifier(string $identifier): UserInterface
    {
        $address = mb_strtolower(trim($identifier));
        $person = $this->entities->getRepository(Person::class)->findOneBy(['email' => $address]);
        // The database takes "á" for "a"; an address has one spelling.
        if (null === $person || $person->email() !== $address || $person->isBlocked() || !$person->hasPassword()) {
            throw new UserNotFoundException();
        }

        return $this->allowed($person);
    }

    public function refreshUser(UserInterface $user): UserInterface
    {
        if (!$user instanceof Person) {
            throw new UnsupportedUserException();
        }
        $visit = $this->requests->getSession()->get(Arrival::VISIT);

        return $this->allowed(
            $this->visits->person($user->id, is_int($visit) ? $visit : null) ?? throw new UserNotFoundException(),
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
