<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Money\Iban;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Settling\AccountState;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Supplier;

/** To which account a supplier is paid: typed by one person, in force when another has said yes. */
#[ORM\Entity]
#[ORM\Index(name: 'account_of_supplier', columns: ['supplier_id', 'state'])]
class SupplierAccount
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Version, ORM\Column(type: 'integer')]
    private int $version = 1;

    #[ORM\Column(length: 34)]
    public readonly string $iban;

    #[ORM\Column(length: 10, enumType: AccountState::class)]
    private AccountState $state = AccountState::Asked;

    #[ORM\ManyToOne]
    private ?Person $decidedBy = null;

    #[ORM\Column(type: 'datetime_immutable', nullable: true)]
    private ?\DateTimeImmutable $decidedAt = null;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Supplier $supplier,
        Iban $iban,
        /** ISO 9362; empty where nobody said. */
        #[ORM\Column(length: 11)] public readonly string $bic,
        #[ORM\Column(length: 70)] public readonly string $holder,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Person $askedBy,
        #[ORM\Column(type: 'datetime_immutable')] private \DateTimeImmutable $askedAt,
    ) {
        $this->iban = $iban->digits;
    }

    /**
     * @param bool $alone whether nobody else could say so
     *
     * @throws Refused if it was decided before, or by whoever typed it
     */
    public function decide(bool $yes, Person $by, \DateTimeImmutable $at, bool $alone): void
    {
        if (AccountState::Asked !== $this->state) {
            throw new Refused(sprintf('That account is %s already.', $this->state->words()));
        }
        if ($by === $this->askedBy && $yes && !$alone) {
            throw new Refused('Whoever typed an account does not confirm it; another person has to.');
        }
        $this->state = $yes ? AccountState::InForce : AccountState::Refused;
        $this->decidedBy = $by;
        $this->decidedAt = $at;
    }

    public function isReplaced(): void
    {
        $this->state = AccountState::Replaced;
    }

    public function state(): AccountState
    {
        return $this->state;
    }

    public function readable(): string
    {
        return implode(' ', str_split($this->iban, 4));
    }

    public function askedAt(): \DateTimeImmutable
    {
        return $this->askedAt;
    }

    public function decidedBy(): ?Person
    {
        return $this->decidedBy;
    }

    public function decidedAt(): ?\DateTimeImmutable
    {
        return $this->decidedAt;
    }

    public function version(): int
    {
        return $this->version;
    }
}
