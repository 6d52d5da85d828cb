<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Person\Role;
use TallBarrel\Store\Site\Site;

/** What is kept of somebody who works here, as plain values. */
final class PersonDetails
{
    public string $name = '';
    public string $email = '';
    public Role $role = Role::Buyer;
    public ?Site $site = null;
    /** @var list<Site> they may see; none for all */
    public array $sees = [];
    public ?Person $approver = null;
    public bool $handlesAll = true;

    /** @param list<Site> $sites all there are */
    public static function of(?Person $person, array $sites): self
    {
        $details = new self();
        if (null !== $person) {
            $details->name = $person->name();
            $details->email = $person->email();
            $details->role = $person->role();
            $details->site = $person->site();
            $details->sees = array_values(array_filter(
                $sites,
                static fn (Site $site): bool => in_array($site->id, $person->seenSites(), true),
            ));
            $details->approver = $person->approver();
            $details->handlesAll = $person->handlesAll();
        }

        return $details;
    }
}
