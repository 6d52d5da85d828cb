<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use TallBarrel\Store\Supplier\Contact;

/** Somebody to write to. */
final class PartyDetails
{
    public string $name = '';
    public string $email = '';
    public string $phone = '';

    public static function of(?Contact $contact): self
    {
        $party = new self();
        $party->name = $contact?->name() ?? '';
        $party->email = $contact?->email() ?? '';
        $party->phone = $contact?->phone() ?? '';

        return $party;
    }

    public function isEmpty(): bool
    {
        return '' === $this->name.$this->email;
    }
}
