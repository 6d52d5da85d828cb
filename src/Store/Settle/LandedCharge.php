<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Brick\Math\BigDecimal;
use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\Common\Collections\Collection;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Settling\ChargeKind;
use TallBarrel\Core\Settling\SpreadBasis;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Store\Type\BigDecimalType;

/** Freight, duty and the like, spread over what came. */
#[ORM\Entity]
class LandedCharge
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Version, ORM\Column(type: 'integer')]
    private int $version = 1;

    /** Why it was taken back; null while it stands. */
    #[ORM\Column(length: 200, nullable: true)]
    private ?string $takenBack = null;

    #[ORM\Column(type: 'datetime_immutable', nullable: true)]
    private ?\DateTimeImmutable $takenBackAt = null;

    /** What took the place of what was expected. */
    #[ORM\ManyToOne]
    private ?LandedCharge $replacedBy = null;

    /** @var Collection<int, LandedChargeLine> */
    #[ORM\OneToMany(targetEntity: LandedChargeLine::class, mappedBy: 'charge', cascade: ['persist'])]
    private Collection $lines;

    public function __construct(
        #[ORM\Column(length: 20, unique: true)] public readonly string $number,
        #[ORM\Column(length: 10, enumType: ChargeKind::class)] public readonly ChargeKind $kind,
        /** Who asks for it; null where nobody does, such as for customs. */
        #[ORM\ManyToOne] public readonly ?Supplier $supplier,
        /** The number on their paper. */
        #[ORM\Column(length: 40)] public readonly string $paper,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2)] public readonly BigDecimal $amount,
        #[ORM\Column(length: 3)] public readonly string $currency,
        /** The same in the home currency, at the day's rate. */
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2)] public readonly BigDecimal $home,
        #[ORM\Column(length: 10, enumType: SpreadBasis::class)] public readonly SpreadBasis $basis,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Person $by,
        #[ORM\Column(type: 'datetime_immutable')] private \DateTimeImmutable $at,
        #[ORM\Column(length: 60, unique: true)] public readonly string $idempotencyKey,
        /** Whether it was put on goods when they came, before anybody billed it; what is billed takes its place. */
        #[ORM\Column(options: ['default' => false])] public readonly bool $isExpected = false,
        /** What is expected by the tariff or the order, before experience put it right; home currency. */
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2, nullable: true)]
        public readonly ?BigDecimal $reckoned = null,
    ) {
        $this->lines = new ArrayCollection();
    }

    public function add(LandedChargeLine $line): void
    {
        $this->lines->add($line);
    }

    /** @return list<LandedChargeLine> */
    public function lines(): array
    {
        return array_values($this->lines->toArray());
    }

    /** @throws Refused if it was taken back before, or nothing says why */
    public function takeBack(string $why, \DateTimeImmutable $at): void
    {
        if (null !== $this->takenBack) {
            throw new Refused(sprintf('%s was taken back already.', $this->number));
        }
        if ('' === trim($why)) {
            throw new Refused('Say why it is taken back.');
        }
        $this->takenBack = mb_substr(trim($why), 0, 200);
        $this->takenBackAt = $at;
    }

    public function isReplacedBy(self $charge): void
    {
        $this->replacedBy = $charge;
    }

    public function replacedBy(): ?self
    {
        return $this->replacedBy;
    }

    /** @return list<string> numbers of the receipts that bear it */
    public function receipts(): array
    {
        return array_values(array_unique(
            array_map(static fn (LandedChargeLine $line): string => $line->came->receipt->number, $this->lines()),
        ));
    }

    /** How it stands, in a word or two. */
    public function stands(): string
    {
        return match (true) {
            null !== $this->takenBack => 'taken back',
            !$this->isExpected => 'booked',
            $this->kind->isBilled() => 'expected',
            default => 'put on goods',
        };
    }

    public function money(): Money
    {
        return Money::of($this->amount, $this->currency);
    }

    public function at(): \DateTimeImmutable
    {
        return $this->at;
    }

    public function takenBack(): ?string
    {
        return $this->takenBack;
    }

    public function takenBackAt(): ?\DateTimeImmutable
    {
        return $this->takenBackAt;
    }

    public function version(): int
    {
        return $this->version;
    }
}
