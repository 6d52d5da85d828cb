<?php

declare(strict_types=1);

namespace TallBarrel\Store\Site;

use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\Common\Collections\Collection;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;

/** A place that holds stock. */
#[ORM\Entity]
class Site
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** @var Collection<int, Bin> */
    #[ORM\OneToMany(targetEntity: Bin::class, mappedBy: 'site', cascade: ['persist'])]
    private Collection $bins;

    #[ORM\Column(length: 10, enumType: SiteKind::class, options: ['default' => 'depot'])]
    private SiteKind $kind = SiteKind::Depot;

    /** Whose surplus comes first when something is short here. */
    #[ORM\ManyToOne]
    private ?Site $suppliedBy = null;

    /** Given up; it stays in what was. */
    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $closedOn = null;

    public function __construct(
        #[ORM\Column(length: 20, unique: true)] public readonly string $code,
        #[ORM\Column(length: 80)] private string $name,
        #[ORM\Column(length: 200)] private string $address,
        #[ORM\Column(length: 80)] private string $receivingHours,
    ) {
        $this->bins = new ArrayCollection();
        $this->describe($name, $address, $receivingHours);
    }

    /** @throws InvalidValue unless it is 1 to 20 letters, digits and hyphens */
    public static function readCode(string $typed): string
    {
        $code = strtoupper(trim($typed));

        return 1 === preg_match('/^[A-Z0-9-]{1,20}$/', $code) ? $code : throw InvalidValue::because(
            sprintf('“%s” is no code of a site; expected 1 to 20 letters and digits, such as DEPOT.', $typed),
        );
    }

    /** @throws InvalidValue without a name */
    public function describe(string $name, string $address, string $receivingHours): void
    {
        $this->name = '' !== trim($name) ? trim($name) : throw InvalidValue::because('A site needs a name.');
        $this->address = trim($address);
        $this->receivingHours = trim($receivingHours);
    }

    /** @throws InvalidValue if it is to be supplied by itself, or by one that it supplies */
    public function serveAs(SiteKind $kind, ?self $suppliedBy): void
    {
        for ($above = $suppliedBy; null !== $above; $above = $above->suppliedBy) {
            if ($above === $this) {
                throw InvalidValue::because(sprintf('%s would in the end be supplied by itself.', $this->name));
            }
        }
        $this->kind = $kind;
        $this->suppliedBy = $suppliedBy;
    }

    public function close(?\DateTimeImmutable $on): void
    {
        $this->closedOn = $on;
    }

    public function name(): string
    {
        return $this->name;
    }

    public function address(): string
    {
        return $this->address;
    }

    public function receivingHours(): string
    {
        return $this->receivingHours;
    }

    public function kind(): SiteKind
    {
        return $this->kind;
    }

    public function suppliedBy(): ?self
    {
        return $this->suppliedBy;
    }

    public function isClosed(): bool
    {
        return null !== $this->closedOn;
    }

    /** @throws InvalidValue if there is one of that code here already */
    public function addBin(string $code, BinKind $kind = BinKind::Shelf): Bin
    {
        $code = Bin::read($code);
        foreach ($this->bins as $known) {
            if (0 === strcasecmp($known->code, $code)) {
                throw InvalidValue::because(sprintf('%s has a bin %s already.', $this->name, $known->code));
            }
        }
        $bin = new Bin($this, $code, $kind);
        $this->bins->add($bin);

        return $bin;
    }

    /** @return list<Bin> */
    public function bins(): array
    {
        return array_values($this->bins->toArray());
    }
}
