<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Bin;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Site\SiteKind;

/** Sites, new or changed, with their bins; bins that are there stay. */
final readonly class SitesImport implements ImportKind
{
    public function __construct(private EntityManagerInterface $entities, private Connection $connection)
    {
    }

    public function name(): string
    {
        return 'sites';
    }

    public function title(): string
    {
        return 'Sites and bins';
    }

    public function columns(): array
    {
        return [
            'code' => 'site code, letters and digits *',
            'name' => 'what it is called *',
            'kind' => 'depot or shop',
            'address' => 'as it stands on orders',
            'hours' => 'when it takes deliveries',
            'supplied_by' => 'code of another site',
            'bins' => 'codes, with blanks between',
        ];
    }

    public function sample(): array
    {
        return [
            ['DEPOT', 'Depot', 'depot', 'Heather Road 12, Larkmoor', 'Mon–Fri 7 to 16', '', 'A-01 A-02 B-01'],
            ['FERRY', 'Ferry Lane', 'shop', 'Ferry Lane 3, Larkmoor', 'rear gate, Mon–Fri 8 to 16', 'DEPOT', ''],
        ];
    }

    public function reader(): callable
    {
        $seen = [];
        /** @var array<string, int> $known */
        $known = $this->connection->fetchAllKeyValue('SELECT UPPER(code), id FROM site');

        return static function (Row $row) use (&$seen, $known): ?array {
            $typed = $row->required('code', 20);
            $code = '' === $typed
                ? ''
                : (string) $row->attempt('code', static fn (): string => Site::readCode($typed));
            if ('' !== $code && isset($seen[$code])) {
                $row->refuse('code', sprintf('stands in line %d already', $seen[$code]));
            }
            $seen[$code] = $row->line;
            $name = isset($known[$code]) ? $row->text('name', 80) : $row->required('name', 80);
            $kind = $row->has('kind') ? SiteKind::tryFrom(strtolower($row->text('kind'))) : null;
            if ($row->has('kind') && null === $kind) {
                $row->refuse('kind', 'neither depot nor shop');
            }
            $by = strtoupper($row->text('supplied_by', 20));
            if ('' !== $by && (!isset($known[$by]) && !isset($seen[$by]) || $by === $code)) {
                $row->refuse('supplied_by', $by === $code ? 'a site is not supplied by itself'
                    : 'no such site above it');
            }
            $bins = $row->attempt('bins', static fn (): array => array_map(
                Bin::read(...),
                preg_split('/[\s,;]+/', $row->text('bins', 4000), -1, \PREG_SPLIT_NO_EMPTY) ?: [],
            ));

            return $row->isGood()
                ? [$code, $name, $kind, $row->text('address'), $row->text('hours', 80), $by, $bins ?? []]
                : null;
        };
    }

    public function apply(iterable $rows, Person $person): void
    {
        $sites = $this->entities->getRepository(Site::class);
        /** @var array{string, string, SiteKind|null, string, string, string, list<string>} $row */
        foreach ($rows as $row) {
            [$code, $name, $kind, $address, $hours, $by, $bins] = $row;
            $site = $sites->findOneBy(['code' => $code]) ?? new Site($code, $name, '', '');
            $site->describe(
                '' !== $name ? $name : $site->name(),
                '' !== $address ? $address : $site->address(),
                '' !== $hours ? $hours : $site->receivingHours(),
            );
            $above = '' === $by ? $site->suppliedBy() : $sites->findOneBy(['code' => $by]);
            $site->serveAs($kind ?? $site->kind(), $above);
            $there = array_map(static fn (Bin $bin): string => strtoupper($bin->code), $site->bins());
            foreach ($bins as $bin) {
                if (!in_array(strtoupper($bin), $there, true)) {
                    $site->addBin($bin);
                    $there[] = strtoupper($bin);
                }
            }
            $this->entities->persist($site);
            $this->entities->flush();
        }
    }

    public function all(): iterable
    {
        foreach ($this->entities->getRepository(Site::class)->findBy(['closedOn' => null], ['id' => 'ASC']) as $site) {
            yield [
                $site->code,
                $site->name(),
                $site->kind()->value,
                $site->address(),
                $site->receivingHours(),
                $site->suppliedBy()->code ?? '',
                implode(' ', array_map(static fn (Bin $bin): string => $bin->code, $site->bins())),
            ];
        }
    }
}
