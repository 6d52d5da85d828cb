<?php

declare(strict_types=1);

namespace TallBarrel\Store\Site;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;

/** A shelf position in a site. */
#[ORM\Entity]
#[ORM\UniqueConstraint(name: 'bin_code', columns: ['site_id', 'code'])]
class Bin
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    public function __construct(
        #[ORM\ManyToOne(inversedBy: 'bins'), ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Column(length: 20)] public readonly string $code,
        #[ORM\Column(length: 10, enumType: BinKind::class, options: ['default' => 'shelf'])] private BinKind $kind =
            BinKind::Shelf,
    ) {
    }

    /** @throws InvalidValue unless it is 1 to 20 letters, digits and marks without blanks */
    public static function read(string $code): string
    {
        $code = trim($code);
        if (1 !== preg_match('/^[\p{L}\p{N}._\/-]{1,20}$/u', $code)) {
            throw InvalidValue::because(
                sprintf('“%s” is no code of a bin; expected 1 to 20 letters and digits, such as A-04.', $code),
            );
        }

        return $code;
    }

    public function kind(): BinKind
    {
        return $this->kind;
    }

    public function holds(BinKind $kind): void
    {
        $this->kind = $kind;
    }
}
