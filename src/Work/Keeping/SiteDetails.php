<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use TallBarrel\Store\Site\BinKind;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Site\SiteKind;

/** What is kept of a site, as plain values. */
final class SiteDetails
{
    public string $code = '';
    public string $name = '';
    public string $address = '';
    public string $hours = '';
    public SiteKind $kind = SiteKind::Depot;
    public ?Site $suppliedBy = null;
    /** Codes of bins to add, with blanks between. */
    public string $bins = '';
    public BinKind $binKind = BinKind::Shelf;

    public static function of(?Site $site): self
    {
        $details = new self();
        if (null !== $site) {
            $details->code = $site->code;
            $details->name = $site->name();
            $details->address = $site->address();
            $details->hours = $site->receivingHours();
            $details->kind = $site->kind();
            $details->suppliedBy = $site->suppliedBy();
        }

        return $details;
    }
}
