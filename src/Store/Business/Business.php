<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Country;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Currency;
use TallBarrel\Core\Money\Iban;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Ordering\BudgetBasis;
use TallBarrel\Core\Ordering\PaperPart;
use TallBarrel\Core\Ordering\YesRules;
use TallBarrel\Core\Quantity\Numerals;
use TallBarrel\Core\Settling\Books\LedgerAccount;
use TallBarrel\Core\Settling\Valuing;
use TallBarrel\Core\Sourcing\CostRates;
use TallBarrel\Core\VisitLength;
use TallBarrel\Store\Person\Right;
use TallBarrel\Store\Person\Role;
use TallBarrel\Store\Type\BigDecimalType;

/** The one business this installation belongs to. */
#[ORM\Entity]
class Business
{
    public const ID = 1;

    #[ORM\Id, ORM\Column]
    public readonly int $id;

    /** What borrowed money costs, percent a year. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 5, scale: 2, options: ['default' => '7.00'])]
    private BigDecimal $moneyPercent;

    /** What the bank takes of a payment in a foreign currency, in percent. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 5, scale: 2, options: ['default' => '0.50'])]
    private BigDecimal $exchangePercent;

    /** Whether what freight, duty and handling are expected to cost is put on goods when they come. */
    #[ORM\Column(options: ['default' => false])]
    private bool $expectsCharges = true;

    /** By which of our rates we account for tax that is not charged; empty for none. */
    #[ORM\Column(length: 30, options: ['default' => ''])]
    private string $ownTax = '';

    /** How the cost of the stock is reckoned; chosen once. */
    #[ORM\Column(length: 8, enumType: Valuing::class, options: ['default' => 'average'])]
    private Valuing $valuing = Valuing::Average;

    /** What taking goods in costs, in percent of their value. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 5, scale: 2, options: ['default' => '0.00'])]
    private BigDecimal $handlingPercent;

    /** The same for each receipt, home currency. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 10, scale: 2, options: ['default' => '0.00'])]
    private BigDecimal $handlingAmount;

    /** What divides the whole from its part in a number: a point or a comma. */
    #[ORM\Column(length: 1, options: ['default' => '.'])]
    private string $decimalMark = Numerals::POINT;

    /** ISO 3166, two letters. */
    #[ORM\Column(length: 2, options: ['default' => ''])]
    private string $country = '';

    #[ORM\Column(options: ['default' => false])]
    private bool $demo = false;

    #[ORM\Column(length: 300, options: ['default' => ''])]
    private string $paperFoot = '';

    /** @var array<string, string> when a change of a sent order needs a new yes, by what changes */
    #[ORM\Column(type: 'json', options: ['default' => '{}'])]
    private array $yesRules = [];

    /** @var list<string> values of PaperPart that stand on the lines of an order's paper */
    #[ORM\Column(type: 'json', options: ['default' => '["their-code", "our-code"]'])]
    private array $paperParts = ['their-code', 'our-code'];

    /** @var list<string> kept to be chosen on orders */
    #[ORM\Column(type: 'json', options: ['default' => '[]'])]
    private array $sentences = [];

    /** @var list<string> what has fields of our own, so that nobody looks for them elsewhere */
    #[ORM\Column(type: 'json', options: ['default' => '[]'])]
    private array $ownThings = [];

    /** @var array<string, list<string>> what a role may do, where the owner said so */
    #[ORM\Column(type: 'json', options: ['default' => '{}'])]
    private array $rights = [];

    /** The account we pay from; empty while nobody said. */
    #[ORM\Column(length: 34, options: ['default' => ''])]
    private string $iban = '';

    #[ORM\Column(length: 11, options: ['default' => ''])]
    private string $bic = '';

    /** @var array<string, string> number and name in the chart of accounts, by what is booked there */
    #[ORM\Column(type: 'json', options: ['default' => '{}'])]
    private array $ledgerAccounts = [];

    /** What was on it on a day, home currency; null while nobody said. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2, nullable: true)]
    private ?BigDecimal $cash = null;

    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $cashOn = null;

    /** How long somebody stays signed in without doing anything, minutes. */
    #[ORM\Column(options: ['default' => 240])]
    private int $idleMinutes = 240;

    /** The same at the most, hours. */
    #[ORM\Column(options: ['default' => 12])]
    private int $visitHours = 12;

    /** @var array<string, string> up to what value a role puts stock right, home currency; others without limit */
    #[ORM\Column(type: 'json', options: ['default' => '{}'])]
    private array $stockLimits = [];

    #[ORM\ManyToOne(cascade: ['persist'])]
    private ?Picture $logo = null;

    #[ORM\Column(length: 10, enumType: BudgetBasis::class, options: ['default' => 'ordering'])]
    private BudgetBasis $budgetBasis = BudgetBasis::Ordering;

    public function __construct(
        #[ORM\Column(length: 120)] private string $name,
        #[ORM\Column(length: 200)] private string $address,
        #[ORM\Column(length: 40)] private string $taxNumber,
        #[ORM\Column(length: 3)] public readonly string $currency,
        /** Cost of placing and receiving one order line. */
        #[ORM\Column(type: BigDecimalType::NAME, precision: 10, scale: 2)] private BigDecimal $orderCost,
        /** Cost of keeping stock for a year, in percent of its value. */
        #[ORM\Column(type: BigDecimalType::NAME, precision: 5, scale: 2)] private BigDecimal $holdingPercent,
        /** What may usually be ordered in a month; null for no budget. */
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2, nullable: true)]
        private ?BigDecimal $monthlyBudget,
    ) {
        $this->id = self::ID;
        $this->moneyPercent = BigDecimal::of(7);
        $this->exchangePercent = BigDecimal::of('0.5');
        $this->handlingPercent = $this->handlingAmount = BigDecimal::zero();
    }

    /** @throws InvalidValue without a name, or with what is no country */
    public function introduce(string $name, string $address, string $taxNumber, string $country): void
    {
        $this->name = '' !== trim($name) ? trim($name) : throw InvalidValue::because('The business needs a name.');
        $this->address = trim($address);
        $this->taxNumber = trim($taxNumber);
        $this->country = '' === $country ? '' : Country::read($country);
    }

    public function visitLength(): VisitLength
    {
        return VisitLength::of($this->idleMinutes, $this->visitHours);
    }

    public function letStay(VisitLength $length): void
    {
        $this->idleMinutes = $length->idleMinutes;
        $this->visitHours = $length->mostHours;
    }

    public function askAgain(YesRules $rules): void
    {
        $this->yesRules = $rules->toArray();
    }

    /** Which changes of a sent order need a new yes. */
    public function yesRules(): YesRules
    {
        return YesRules::of($this->yesRules);
    }

    /** @param list<PaperPart> $parts */
    public function writeOnLines(array $parts): void
    {
        $this->paperParts = array_column($parts, 'value');
    }

    /** @return list<PaperPart> */
    public function paperParts(): array
    {
        return array_values(array_filter(
            PaperPart::cases(),
            fn (PaperPart $part): bool => in_array($part->value, $this->paperParts, true),
        ));
    }

    /** Words at the foot of every paper. */
    public function signPaper(string $foot): void
    {
        $this->paperFoot = trim($foot);
    }

    /**
     * @param list<string> $sentences
     *
     * @throws InvalidValue if there are more than 40, or one is longer than 300 characters
     */
    public function keepSentences(array $sentences): void
    {
        $sentences = array_values(
            array_unique(array_filter(array_map(trim(...), $sentences), static fn (string $one): bool => '' !== $one)),
        );
        if (count($sentences) > 40) {
            throw InvalidValue::because(sprintf('%d sentences; at most 40 are kept.', count($sentences)));
        }
        foreach ($sentences as $sentence) {
            if (mb_strlen($sentence) > 300) {
                throw InvalidValue::because(
                    sprintf('“%s …” is longer than 300 characters.', mb_substr($sentence, 0, 40)),
                );
            }
        }
        $this->sentences = $sentences;
    }

    /** @return list<string> */
    public function sentences(): array
    {
        return $this->sentences;
    }

    /** From now on such things have fields of our own. */
    public function asksOwn(OwnFieldThing $thing): void
    {
        $this->ownThings = array_values(array_unique([...$this->ownThings, $thing->value]));
    }

    public function hasOwn(OwnFieldThing $thing): bool
    {
        return in_array($thing->value, $this->ownThings, true);
    }

    /**
     * @param list<Right> $rights
     *
     * @throws InvalidValue if the role is the owner's, or a right makes no sense without seeing what things cost
     */
    public function allow(Role $role, array $rights): void
    {
        if (Role::Owner === $role) {
            throw InvalidValue::because('The owner may do everything.');
        }
        $blind = array_filter(
            in_array(Right::Costs, $rights, true) ? [] : $rights,
            static fn (Right $right): bool => $right->needsCosts(),
        );
        foreach ($blind as $right) {
            throw InvalidValue::because(
                sprintf('Whoever may %s has to see what things cost.', explode(',', $right->words())[0]),
            );
        }
        $this->rights[$role->value] = array_values(array_map(
            static fn (Right $right): string => $right->value,
            array_filter($rights, static fn (Right $right): bool => $right->canBeGiven()),
        ));
    }

    /** @return list<Right> */
    public function rightsOf(Role $role): array
    {
        $said = Role::Owner === $role ? null : $this->rights[$role->value] ?? null;

        return null === $said ? $role->rights() : array_values(array_map(Right::from(...), $said));
    }

    /**
     * @param BigDecimal|null $value home currency, of stock that is put right or scrapped at once; null for no limit
     *
     * @throws InvalidValue if it is below zero, or the owner would have one
     */
    public function putsRightUpTo(Role $role, ?BigDecimal $value): void
    {
        if (Role::Owner === $role && null !== $value) {
            throw InvalidValue::because('The owner may do everything.');
        }
        if (true === $value?->isNegative()) {
            throw InvalidValue::because(sprintf('%s is below zero.', $value));
        }
        unset($this->stockLimits[$role->value]);
        if (null !== $value) {
            $this->stockLimits[$role->value] = $value->toString();
        }
    }

    public function stockLimit(Role $role): ?BigDecimal
    {
        $limit = $this->stockLimits[$role->value] ?? null;

        return null === $limit ? null : BigDecimal::of($limit);
    }

    /** @param array<string, string> $named number and name, by what is booked there */
    public function booksOn(array $named): void
    {
        $this->ledgerAccounts = array_diff($named, ['']);
    }

    /** As the chart of accounts calls it; by its plain name where nobody said. */
    public function calls(LedgerAccount $account): string
    {
        return $this->ledgerAccounts[$account->value] ?? $account->words();
    }

    public function has(?BigDecimal $cash, \DateTimeImmutable $on): void
    {
        $this->cash = $cash;
        $this->cashOn = null === $cash ? null : $on;
    }

    /** What is there to pay with; null while nobody said. */
    public function cash(): ?Money
    {
        return null === $this->cash ? null : Money::of($this->cash, $this->currency);
    }

    public function cashOn(): ?\DateTimeImmutable
    {
        return $this->cashOn;
    }

    public function paysFrom(?Iban $iban, string $bic): void
    {
        $this->iban = $iban->digits ?? '';
        $this->bic = $bic;
    }

    public function iban(): ?Iban
    {
        return '' === $this->iban ? null : Iban::of($this->iban);
    }

    public function bic(): string
    {
        return $this->bic;
    }

    public function showLogo(?Picture $logo): void
    {
        $this->logo = $logo;
    }

    /** That all of it is made up. */
    public function isMadeUp(): void
    {
        $this->demo = true;
    }

    public function isDemo(): bool
    {
        return $this->demo;
    }

    public function name(): string
    {
        return $this->name;
    }

    public function address(): string
    {
        return $this->address;
    }

    public function taxNumber(): string
    {
        return $this->taxNumber;
    }

    /** ISO 3166, two letters; empty where it was never said. */
    public function country(): string
    {
        return $this->country;
    }

    public function paperFoot(): string
    {
        return $this->paperFoot;
    }

    public function logo(): ?Picture
    {
        return $this->logo;
    }

    public function orderCost(): BigDecimal
    {
        return $this->orderCost;
    }

    public function holdingPercent(): BigDecimal
    {
        return $this->holdingPercent;
    }

    /** @throws InvalidValue unless the cost is 0 or more and keeping is from 0 to 100 percent */
    public function weigh(BigDecimal $orderCost, BigDecimal $holdingPercent): void
    {
        if ($orderCost->isNegative() || $orderCost->isGreaterThan(10000)) {
            throw InvalidValue::because(
                sprintf('An order line that costs %s is out of range; expected 0 to 10,000.', $orderCost),
            );
        }
        if ($holdingPercent->isNegative() || $holdingPercent->isGreaterThan(100)) {
            throw InvalidValue::because(
                sprintf('“%s %%” a year is out of range; expected 0 to 100.', $holdingPercent),
            );
        }
        $this->orderCost = $orderCost;
        $this->holdingPercent = $holdingPercent;
    }

    /** @throws InvalidValue unless both are from 0 to 60 */
    public function reckonWith(BigDecimal $moneyPercent, BigDecimal $exchangePercent): void
    {
        foreach ([$moneyPercent, $exchangePercent] as $percent) {
            if ($percent->isNegative() || $percent->isGreaterThan(60)) {
                throw InvalidValue::because(sprintf('“%s %%” a year is out of range; expected 0 to 60.', $percent));
            }
        }
        $this->moneyPercent = $moneyPercent;
        $this->exchangePercent = $exchangePercent;
    }

    /**
     * @param BigDecimal $handlingPercent of the value of what comes
     * @param BigDecimal $handlingAmount  of each receipt, home currency
     *
     * @throws InvalidValue unless the percents are from 0 to 60, and the amount from 0 to 10,000
     */
    public function expectCharges(bool $expects, BigDecimal $handlingPercent, BigDecimal $handlingAmount): void
    {
        if ($handlingPercent->isNegative() || $handlingPercent->isGreaterThan(60)) {
            throw InvalidValue::because(
                sprintf('Handling of “%s %%” is out of range; expected 0 to 60.', $handlingPercent),
            );
        }
        if ($handlingAmount->isNegative() || $handlingAmount->isGreaterThan(10000)) {
            throw InvalidValue::because(
                sprintf('Handling of %s a receipt is out of range; expected 0 to 10,000.', $handlingAmount),
            );
        }
        $this->expectsCharges = $expects;
        $this->handlingPercent = $handlingPercent;
        $this->handlingAmount = $handlingAmount;
    }

    /** @param string $name of one of our rates; empty for none */
    public function accountForTaxBy(string $name): void
    {
        $this->ownTax = trim($name);
    }

    public function ownTax(): string
    {
        return $this->ownTax;
    }

    public function valueBy(Valuing $valuing): void
    {
        $this->valuing = $valuing;
    }

    public function valuing(): Valuing
    {
        return $this->valuing;
    }

    public function expectsCharges(): bool
    {
        return $this->expectsCharges;
    }

    public function handlingPercent(): BigDecimal
    {
        return $this->handlingPercent;
    }

    public function handlingAmount(): BigDecimal
    {
        return $this->handlingAmount;
    }

    /** @throws InvalidValue below zero */
    public function spendMonthly(?BigDecimal $budget): void
    {
        $this->monthlyBudget = null === $budget ? null : MonthBudget::allowed($budget);
    }

    /** In which month money counts as spent. */
    public function countBudget(BudgetBasis $basis): void
    {
        $this->budgetBasis = $basis;
    }

    public function budgetBasis(): BudgetBasis
    {
        return $this->budgetBasis;
    }

    public function monthlyBudget(): ?BigDecimal
    {
        return $this->monthlyBudget;
    }

    /** @throws InvalidValue unless it is a point or a comma */
    public function writeNumbersWith(string $decimalMark): void
    {
        $this->decimalMark = Numerals::with($decimalMark)->mark ?? Numerals::POINT;
    }

    public function decimalMark(): string
    {
        return $this->decimalMark;
    }

    public function moneyPercent(): BigDecimal
    {
        return $this->moneyPercent;
    }

    public function exchangePercent(): BigDecimal
    {
        return $this->exchangePercent;
    }

    public function costRates(): CostRates
    {
        return new CostRates(
            $this->moneyPercent->toFloat(),
            $this->holdingPercent->toFloat(),
            $this->exchangePercent->toFloat(),
        );
    }

    public function homeCurrency(): Currency
    {
        return Currency::of($this->currency);
    }
}
