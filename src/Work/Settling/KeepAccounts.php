<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Iban;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Person\Right;
use TallBarrel\Store\Settle\SupplierAccount;
use TallBarrel\Store\Settle\SupplierAccounts;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Keeping\AllOrNothing;

/** Bank accounts: a supplier's is typed by one person and in force when another has said yes. */
final readonly class KeepAccounts
{
    private const LONGEST = 70;

    public function __construct(
        private EntityManagerInterface $entities,
        private SupplierAccounts $accounts,
        private CurrentBusiness $business,
        private AllOrNothing $whole,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /** @param Problems $problems takes what cannot be, as "iban", "bic" or "holder" */
    public function ask(
        Supplier $supplier,
        string $iban,
        string $bic,
        string $holder,
        Person $by,
        Problems $problems,
    ): void {
        $read = $problems->attempt('iban', static fn (): Iban => Iban::of($iban));
        $bank = $problems->attempt('bic', static fn (): string => Iban::bank($bic));
        $problems->apply('holder', static function () use ($holder): void {
            if (mb_strlen($holder) > self::LONGEST) {
                throw InvalidValue::because(sprintf('At most %d characters.', self::LONGEST));
            }
        });
        if (null === $read || null === $bank || !$problems->areNone()) {
            return;
        }
        $this->whole->take(function () use ($supplier, $read, $bank, $holder, $by): void {
            $account = new SupplierAccount(
                $supplier,
                $read,
                $bank,
                '' === trim($holder) ? mb_substr($supplier->name(), 0, self::LONGEST) : trim($holder),
                $by,
                $this->clock->now(),
            );
            $this->entities->persist($account);
            $this->audit->note($by, 'supplier '.$supplier->code, sprintf(
                'Account asked for: %s, was %s',
                $account->readable(),
                $this->accounts->inForce($supplier)?->readable() ?? 'none',
            ));
        });
    }

    /** @throws Refused if it was decided before, or by whoever typed it while there are others */
    public function decide(SupplierAccount $account, bool $yes, Person $by): void
    {
        $this->whole->take(function () use ($account, $yes, $by): void {
            $this->entities->lock($account, LockMode::PESSIMISTIC_WRITE);
            $before = $this->accounts->inForce($account->supplier);
            $account->decide($yes, $by, $this->clock->now(), $this->isAlone($by));
            if ($yes) {
                $before?->isReplaced();
            }
            $this->audit->note($by, 'supplier '.$account->supplier->code, sprintf(
                'Account %s: %s, typed by %s',
                $account->readable(),
                $account->state()->words(),
                $account->askedBy->name(),
            ));
        });
    }

    /** @param Problems $problems takes what cannot be, as "our_iban" or "our_bic" */
    public function ours(string $iban, string $bic, Person $by, Problems $problems): void
    {
        $read = '' === trim($iban) ? null : $problems->attempt('our_iban', static fn (): Iban => Iban::of($iban));
        $bank = $problems->attempt('our_bic', static fn (): string => Iban::bank($bic));
        if ($problems->areNone()) {
            $this->business->get()->paysFrom($read, (string) $bank);
            $this->audit->note($by, 'business', 'Pays from '.($read?->readable() ?? 'no account'));
            $this->entities->flush();
        }
    }

    /** Whether nobody else here could say yes. */
    private function isAlone(Person $by): bool
    {
        $business = $this->business->get();
        foreach ($this->entities->getRepository(Person::class)->findBy(['blockedAt' => null]) as $person) {
            if ($person !== $by && in_array(Right::Release, $business->rightsOf($person->role()), true)) {
                return false;
            }
        }

        return true;
    }
}
