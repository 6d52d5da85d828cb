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

    /** @return list<string> security roles it has unless the owner says otherwise */
    public function grants(): array
    {
        return self::asRoles($this->rights());
    }

    /**
     * @param list<Right> $rights
     *
     * @return list<string> security roles
     */
    public static function asRoles(array $rights): array
    {
        return ['ROLE_PERSON', ...array_map(static fn (Right $right): string => $right->value, $rights)];
    }

    /** @return list<Right> */
    public function rights(): array
    {
        return match ($this) {
            self::Owner => Right::cases(),
            self::Buyer => [Right::Buy, Right::Receive, Right::Import, Right::Decide, Right::Costs],
            self::Stockroom => [Right::Receive, Right::Costs],
            self::Bookkeeper => [Right::Invoice, Right::Release, Right::Costs],
        };
    }
}
