<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Dock\ReceiptLine;
use TallBarrel\Store\Item\Item;

/** One piece with a number of its own: with which receipt it came, and to whom it went. */
#[ORM\Entity]
#[ORM\UniqueConstraint(name: 'serial_once', columns: ['item_id', 'number'])]
class Serial
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $goneOn = null;

    #[ORM\Column(length: 80, options: ['default' => ''])]
    private string $goneTo = '';

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Item $item,
        #[ORM\Column(length: 40)] public readonly string $number,
        #[ORM\ManyToOne] public readonly ?ReceiptLine $cameWith,
    ) {
    }

    /**
     * @throws InvalidValue without a word of where to
     * @throws Refused      if it is gone already
     */
    public function goes(string $to, \DateTimeImmutable $on): void
    {
        if (null !== $this->goneOn) {
            throw new Refused(
                sprintf('%s went to %s on %s.', $this->number, $this->goneTo, $this->goneOn->format('j M Y')),
            );
        }
        $this->goneTo = '' !== trim($to) ? trim($to) : throw InvalidValue::because('Say to whom it went.');
        $this->goneOn = $on;
    }

    /** It is here after all. */
    public function comesBack(): void
    {
        $this->goneOn = null;
        $this->goneTo = '';
    }

    public function goneOn(): ?\DateTimeImmutable
    {
        return $this->goneOn;
    }

    public function goneTo(): string
    {
        return $this->goneTo;
    }
}
