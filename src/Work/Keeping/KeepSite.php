<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\WhatMoved;
use TallBarrel\Store\Site\Bin;
use TallBarrel\Store\Site\BinKind;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Site\Sites;

/** A site is opened, described anew or closed; its bins come and go. */
final readonly class KeepSite
{
    private const MOST_BINS = 500;

    public function __construct(
        private EntityManagerInterface $entities,
        private Connection $connection,
        private Sites $sites,
        private WhatMoved $moved,
        private AllOrNothing $whole,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /** @param Problems $problems takes what stands in the way, by field; nothing is saved then */
    public function open(SiteDetails $details, Person $by, Problems $problems): ?Site
    {
        $code = (string) $problems->attempt('code', static fn (): string => Site::readCode($details->code));
        if ('' !== $code && null !== $this->sites->byCode($code)) {
            $problems->refuse('code', sprintf('There is a site %s already.', $code));
        }
        $site = $problems->attempt(
            'name',
            static fn (): Site => new Site($code, $details->name, $details->address, $details->hours),
        );
        if (null === $site) {
            return null;
        }
        $this->describe($site, $details, $problems);
        if (!$problems->areNone()) {
            return null;
        }
        $this->whole->take(function () use ($site, $by): void {
            $this->entities->persist($site);
            $this->audit->note($by, 'site '.$site->code, 'Opened');
        });

        return $site;
    }

    public function change(Site $site, SiteDetails $details, Person $by, Problems $problems): void
    {
        $problems->apply(
            'name',
            static fn () => $site->describe($details->name, $details->address, $details->hours),
        );
        $this->describe($site, $details, $problems);
        if (!$problems->areNone()) {
            $this->entities->clear();

            return;
        }
        $this->audit->note($by, 'site '.$site->code, 'Described anew');
        $this->entities->flush();
    }

    /** @throws Refused while something is there, on its way there, or it is the last one */
    public function close(Site $site, Person $by): void
    {
        if ([$site] === $this->sites->all()) {
            throw new Refused('The last site cannot be closed.');
        }
        $open = $this->connection->fetchOne(
            "SELECT CASE
                WHEN EXISTS (SELECT 1 FROM stock_balance WHERE site_id = :site AND quantity <> 0) THEN
                    'stock lies there'
                WHEN EXISTS (SELECT 1 FROM open_line WHERE site_id = :site) THEN 'orders are on their way there'
                WHEN EXISTS (SELECT 1 FROM open_transfer WHERE site_id = :site) THEN 'it asked another site for goods'
                WHEN EXISTS (SELECT 1 FROM order_line l JOIN purchase_order o ON o.id = l.order_id
                    WHERE l.site_id = :site AND o.state IN ('draft', 'awaiting-approval', 'approved'))
                    THEN 'orders are being written for it'
                WHEN EXISTS (SELECT 1 FROM open_promise WHERE site_id = :site) THEN 'customers are promised goods there'
                ELSE '' END",
            ['site' => $site->id],
        );
        if (is_string($open) && '' !== $open) {
            throw new Refused(sprintf('%s cannot be closed yet: %s.', $site->name(), $open));
        }
        $this->whole->take(function () use ($site, $by): void {
            $site->close($this->clock->now()->setTime(0, 0));
            $this->moved->noteEverything();
            $this->audit->note($by, 'site '.$site->code, 'Closed');
        });
    }

    public function openAgain(Site $site, Person $by): void
    {
        $this->whole->take(function () use ($site, $by): void {
            $site->close(null);
            $this->moved->noteEverything();
            $this->audit->note($by, 'site '.$site->code, 'Opened again');
        });
    }

    /** @throws Refused while an item is put there */
    public function dropBin(Bin $bin, Person $by): void
    {
        $items = $this->connection->fetchFirstColumn(
            'SELECT i.code FROM stocking t JOIN item i ON i.id = t.item_id WHERE t.bin_id = ? ORDER BY i.code LIMIT 4',
            [$bin->id],
        );
        if ([] !== $items) {
            throw new Refused(sprintf(
                '%s is where %s %s put; give %s another bin first.',
                $bin->code,
                implode(', ', array_map(static fn (mixed $code): string => is_string($code) ? $code : '', $items)),
                1 === count($items) ? 'is' : 'are',
                1 === count($items) ? 'it' : 'them',
            ));
        }
        $this->whole->take(function () use ($bin, $by): void {
            $this->audit->note($by, 'site '.$bin->site->code, 'Bin '.$bin->code.' taken out');
            $this->entities->remove($bin);
        });
    }

    public function binHolds(Bin $bin, BinKind $kind, Person $by): void
    {
        $bin->holds($kind);
        $this->audit->note($by, 'site '.$bin->site->code, sprintf('Bin %s is %s', $bin->code, $kind->value));
        $this->entities->flush();
    }

    private function describe(Site $site, SiteDetails $details, Problems $problems): void
    {
        $problems->apply('supplied_by', static fn () => $site->serveAs($details->kind, $details->suppliedBy));
        $codes = preg_split('/[\s,;]+/', $details->bins, -1, \PREG_SPLIT_NO_EMPTY) ?: [];
        if (count($codes) > self::MOST_BINS) {
            $problems->refuse('bins', sprintf('%d bins at once; at most %d.', count($codes), self::MOST_BINS));
        } else {
            $problems->apply('bins', static function () use ($site, $codes, $details): void {
                foreach ($codes as $code) {
                    $site->addBin($code, $details->binKind);
                }
            });
        }
    }
}
