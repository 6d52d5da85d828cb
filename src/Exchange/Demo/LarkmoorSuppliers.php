<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Demo;

/** The made-up suppliers of the demo, and how they behave. */
final readonly class LarkmoorSuppliers
{
    /**
     * @param array{string, string, string, string}|null $address street, postcode, city, country
     * @param array{string, string}|null                 $contact name and email
     * @param array{int, float, int}                     $terms   net days, discount percent, discount days
     * @param array{int, int, int}|null                  $open    the order still open: sent so many days ago, due in so many, acknowledged or not
     */
    private function __construct(
        public string $code,
        public string $name,
        public string $currency,
        public ?array $address,
        public ?array $contact,
        public array $terms,
        public string $delivery,
        public string $weekdays,
        public string $cutOff,
        public ?int $minimum,
        public ?int $freeFreight,
        public int $tax,
        public int $leadDays,
        public int $leadSpread,
        public int $rhythm,
        public string $caution,
        public string $note,
        public ?array $open,
    ) {
    }

    /** @return list<self> */
    public static function all(): array
    {
        return [
            new self('VETRASOL', 'Vetrasol Glassworks', 'EUR', ['Kilnfield 4', '53501', 'Orlany', 'CZ'], ['Ilse Tamm', 'orders@vetrasol.example'], [30, 2, 10], 'DAP Larkmoor', '1,2,3,4,5', '14:00', 500, 900, 21, 6, 1, 14, 'Their yard is shut on Mondays before 8.', 'Please pack jars on two layers, lids on top.', [6, 0, 1]),
            new self('BRENMOOR', 'Brenmoor Joinery', 'GBP', ['Sawpit Yard 11', 'BM4 2QX', 'Brenmoor', 'GB'], ['Hollis Crane', 'sales@brenmoor.example'], [30, 0, 0], 'FCA Brenmoor', '4', '12:00', null, 1200, 0, 12, 3, 18, '', '', [15, -3, 1]),
            new self('TINDAVIK', 'Tindavik Containers', 'PLN', ['Portowa 27', '70-801', 'Tindavik', 'PL'], ['Jarek Molin', 'biuro@tindavik.example'], [60, 0, 0], 'FCA Tindavik', '2,4', '11:00', 3000, 12000, 0, 22, 5, 30, 'Quotes lead times without the customs day; add two.', '', null),
            new self('LUMEN', 'Lumen Fold Packaging', 'EUR', ['Lysvej 8', '7100', 'Foldby', 'DK'], ['Signe Aaby', ''], [30, 0, 0], 'DAP Larkmoor', '', '15:00', 150, 400, 0, 11, 2, 25, '', '', null),
            new self('OSTREL', 'Ostrel Wax', 'EUR', ['Imkerweg 3', '29410', 'Ostrel', 'DE'], ['Marit Vogt', 'bestellung@ostrel.example'], [30, 3, 8], 'DAP Larkmoor', '1,3', '10:00', 250, 600, 0, 13, 2, 16, '', 'Batch numbers on every carton, please.', [4, 9, 0]),
            new self('POLLENBY', 'Pollenby Feeds', 'EUR', ['Mill Quay 2', 'R21 PB60', 'Pollenby', 'IE'], ['Dara Quill', 'orders@pollenby.example'], [14, 0, 0], 'DAP Larkmoor', '1,2,3,4,5', '16:30', 200, 350, 13, 5, 1, 10, '', '', [4, 1, 1]),
            new self('KESTRANE', 'Kestrane Metalworks', 'USD', ['480 Foundry Road', '04412', 'Kestrane', 'US'], ['Wynn Abara', 'export@kestrane.example'], [45, 0, 0], 'CIP Larkmoor', '3', '17:00', 600, 2500, 0, 19, 4, 28, 'Check the voltage on anything electric: they ship both.', '', [16, 3, 1]),
            new self('MURREL', 'Murrel Textiles', 'GBP', ['Loom Street 19', 'MT1 7AA', 'Murrel', 'GB'], ['Petra Sloan', 'trade@murrel.example'], [30, 0, 0], 'DAP Larkmoor', '1,4', '13:00', 300, 750, 0, 16, 3, 28, '', '', [13, 3, 1]),
            new self('STANNERY', 'Stannery Kit', 'EUR', ['Tinner’s Row 6', 'V94 ST2', 'Stannery', 'IE'], ['Bo Farrant', 'parts@stannery.example'], [30, 0, 0], 'DAP Larkmoor', '', '16:00', 80, null, 23, 9, 4, 40, '', '', null),
            new self('HALDERVANE', 'Haldervane Apiary Health', 'EUR', ['Klinikgatan 5', '411 12', 'Haldervane', 'SE'], ['Linn Osk', 'order@haldervane.example'], [30, 1.5, 7], 'DAP Larkmoor', '1,2,3,4', '12:00', 150, 500, 0, 8, 1, 20, 'Cold chain from May to September: nobody home, no delivery.', '', null),
            new self('QUILLBAR', 'Quillbar Print', 'EUR', ['Type Lane 1', 'R32 QB7', 'Quillbar', 'IE'], null, [14, 0, 0], 'DAP Larkmoor', '', '17:00', null, 250, 23, 4, 1, 21, '', '', null),
            new self('FENWHISTLE', 'Fenwhistle Ferments', 'EUR', null, ['Ada Renn', 'hello@fenwhistle.example'], [30, 0, 0], 'DAP Larkmoor', '2,5', '12:00', 120, 300, 0, 7, 2, 24, '', '', [5, 2, 0]),
        ];
    }
}
