<?php

declare(strict_types=1);

namespace TallBarrel\Store\Person;

/** What a person does in the business, and so what they may do here. */
enum Role: string
{
    case Owner = 'owner';
    case Buyer = 'buyer';
    case Stockroom = 'stockroom';
    case Bookkeeper = 'bookkeeper';

    /** @return list<string> security roles */
    public function grants(): array
    {
        return match ($this) {
            self::Owner => [
                'ROLE_PERSON',
                'ROLE_BUY',
                'ROLE_RECEIVE',
                'ROLE_IMPORT',
                'ROLE_APPROVE',
                'ROLE_INVOICE',
                'ROLE_DECIDE',
                'ROLE_RELEASE',
            ],
            self::Buyer => ['ROLE_PERSON', 'ROLE_BUY', 'ROLE_RECEIVE', 'ROLE_IMPORT', 'ROLE_DECIDE'],
            self::Stockroom => ['ROLE_PERSON', 'ROLE_RECEIVE'],
            self::Bookkeeper => ['ROLE_PERSON', 'ROLE_INVOICE', 'ROLE_RELEASE'],
        };
    }
}
