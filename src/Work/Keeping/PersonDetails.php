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
    public ?Person $approver = null;
    public bool $handlesAll = true;

    public static function of(?Person $person): self
    {
        $details = new self();
        if (null !== $person) {
            $details->name = $person->name();
            $details->email = $person->email();
            $details->role = $person->role();
            $details->site = $person->site();
            $details->approver = $person->approver();
            $details->handlesAll = $person->handlesAll();
        }

        return $details;
    }
}
