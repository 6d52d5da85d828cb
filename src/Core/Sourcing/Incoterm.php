<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

use TallBarrel\Core\InvalidValue;

/** Who pays and answers for the way of the goods: the rules of Incoterms 2020, International Chamber of Commerce. */
enum Incoterm: string
{
    case ExWorks = 'EXW';
    case FreeCarrier = 'FCA';
    case FreeAlongsideShip = 'FAS';
    case FreeOnBoard = 'FOB';
    case CostAndFreight = 'CFR';
    case CostInsuranceFreight = 'CIF';
    case CarriagePaid = 'CPT';
    case CarriageAndInsurancePaid = 'CIP';
    case DeliveredAtPlace = 'DAP';
    case DeliveredUnloaded = 'DPU';
    case DeliveredDutyPaid = 'DDP';

    /**
     * @param string $terms the rule and its place, such as "FCA Brenmoor"
     *
     * @return array{self, string}
     *
     * @throws InvalidValue
     */
    public static function read(string $terms): array
    {
        [$rule, $place] = explode(' ', trim($terms), 2) + [1 => ''];
        $found = self::tryFrom(strtoupper($rule));
        if (null === $found) {
            throw InvalidValue::because(
                sprintf(
                    '“%s” is no rule of Incoterms 2020; expected one of %s, then the place.',
                    $rule,
                    implode(', ', array_column(self::cases(), 'value')),
                ),
            );
        }
        if ('' === trim($place)) {
            throw InvalidValue::because(
                sprintf('%s needs a place, such as “%s Ferry Lane”.', $found->value, $found->value),
            );
        }

        return [$found, trim($place)];
    }

    /** Whether the price already covers the main carriage. */
    public function sellerPaysCarriage(): bool
    {
        return !in_array($this, [self::ExWorks, self::FreeCarrier, self::FreeAlongsideShip, self::FreeOnBoard], true);
    }

    public function sellerPaysDuty(): bool
    {
        return self::DeliveredDutyPaid === $this;
    }
}
