<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Money\AllowanceCharge;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Address;
use TallBarrel\Store\Supplier\Contact;
use TallBarrel\Store\Supplier\Supplier;

/** Changes what is kept of a supplier: all of it, or nothing. */
final readonly class ChangeSupplier
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param int      $version  of the supplier when it was looked at
     * @param Problems $problems what could not be read already; what else stands in the way is added, by field. Nothing
     *                           is saved unless there are none
     */
    public function change(
        Supplier $supplier,
        SupplierDetails $details,
        int $version,
        Person $person,
        Problems $problems,
    ): void {
        if ($version !== $supplier->version()) {
            $problems->refuse(
                '',
                'Somebody changed this supplier while you were typing. Your entries are still in the fields; look at '
                .'them once more and save again.',
            );

            return;
        }
        $wasSeen = [] === $supplier->unseen();
        $problems->apply('name', fn () => $supplier->rename($details->name));
        $this->parties($supplier, $details, $problems);
        $this->places($supplier, $details, $problems);
        $this->terms($supplier, $details, $problems);
        $this->freight($supplier, $details, $problems);
        $problems->apply(
            'cut_off',
            fn () => $supplier->takesOrders(implode(',', $details->weekdays), $details->cutOff),
        );
        $problems->apply('minimum_kg', fn () => $supplier->takesAtLeast($details->minimumKg, $details->minimumPacks));
        $problems->apply(
            'tolerance_percent',
            fn () => $supplier->mayAsk($details->tolerancePercent, $details->toleranceAmount),
        );
        $supplier->belongTo($details->priceGroup);
        $supplier->isTaxedBy($details->taxName);
        $problems->apply('other_delivery_terms', fn () => $supplier->mayAlsoDeliverAs(
            preg_split('/\s*\R\s*/', trim($details->otherDeliveryTerms), -1, \PREG_SPLIT_NO_EMPTY) ?: [],
        ));
        $supplier->isBoughtFromBy($details->buyer);
        $supplier->wantsOrders($details->wantsCsv, $details->wantsXml);
        $supplier->inspect($details->inspected);
        $problems->apply(
            'csv_columns',
            fn () => $supplier->takesCsv($details->csvColumns, $details->csvDelimiter, $details->csvFilename),
        );
        $supplier->readsOrders($details->language, $details->seesPrices);
        $supplier->remember($details->caution, $details->note);
        $supplier->jot($details->notes);
        if ($wasSeen && $person->mayApprove()) {
            $supplier->seen();
        }
        if ($problems->areNone()) {
            $this->audit->note($person, 'supplier '.$supplier->code, 'Changed');
            $this->entities->flush();
        } else {
            $this->entities->refresh($supplier);
        }
    }

    /** @throws Refused while something is on its way from it, or asked of it */
    public function archive(Supplier $supplier, Person $person): void
    {
        /** @var list<string> $open */
        $open = $this->entities->getConnection()->fetchFirstColumn(
            "SELECT number FROM purchase_order WHERE supplier_id = :supplier
                AND state NOT IN ('received', 'closed', 'cancelled')
             UNION SELECT r.number FROM quote q JOIN quote_round r ON r.id = q.round_id
                WHERE q.supplier_id = :supplier AND r.settled_at IS NULL LIMIT 5",
            ['supplier' => $supplier->id],
        );
        if ([] !== $open) {
            throw new Refused(
                sprintf('%s is still in %s; finish that first.', $supplier->name(), implode(', ', $open)),
            );
        }
        $supplier->archive($this->clock->now()->setTime(0, 0));
        $this->audit->note($person, 'supplier '.$supplier->code, 'Archived');
        $this->entities->flush();
    }

    public function takeUp(Supplier $supplier, Person $person): void
    {
        $supplier->archive(null);
        $this->audit->note($person, 'supplier '.$supplier->code, 'Taken up again');
        $this->entities->flush();
    }

    /** @param list<AllowanceCharge> $adjustments that every order to them begins with; all there are to be */
    public function adjust(Supplier $supplier, array $adjustments, Person $person): void
    {
        $supplier->adjusts($adjustments);
        $words = array_map(static fn (AllowanceCharge $one): string => $one->words(), $adjustments);
        $this->audit->note(
            $person,
            'supplier '.$supplier->code,
            [] === $words ? 'Orders begin with no charges' : 'Orders begin with: '.implode('; ', $words),
        );
        $this->entities->flush();
    }

    private function parties(Supplier $supplier, SupplierDetails $details, Problems $problems): void
    {
        if (!$details->orders->isEmpty()) {
            $problems->apply(
                'email',
                fn () => $supplier->orderThrough(
                    $details->orders->name,
                    $details->orders->email,
                    $details->orders->phone,
                ),
            );
        }
        foreach ([Contact::QUOTES => $details->quotes, Contact::ACCOUNTS => $details->accounts] as $role => $party) {
            $problems->apply(
                $role.'_email',
                fn () => $supplier->orderThrough($party->name, $party->email, '', $role),
            );
        }
    }

    private function places(Supplier $supplier, SupplierDetails $details, Problems $problems): void
    {
        foreach (
            [
                [Address::ORDER, $details->at, 'country'],
                [Address::PAY, $details->paidAt, 'pay_country'],
                [Address::SHIP_FROM, $details->shipsFrom, 'ship_country'],
            ] as [$role, $place, $field]
        ) {
            if (Address::ORDER !== $role || !$place->isEmpty()) {
                $problems->apply(
                    $field,
                    fn () => $supplier->moveTo($place->street, $place->postcode, $place->city, $place->country, $role),
                );
            }
        }
        $problems->apply(
            'delivery_terms',
            fn () => $supplier->deliversAs(
                $details->deliveryTerms,
                Tax::percent($details->tax ?? BigDecimal::zero(), $details->untaxed),
            ),
        );
    }

    private function terms(Supplier $supplier, SupplierDetails $details, Problems $problems): void
    {
        if (null !== $details->netDays) {
            $problems->apply(
                'net_days',
                fn () => $supplier->agreeTerms(
                    PaymentTerms::net(
                        $details->netDays,
                        $details->discountPercent ?? BigDecimal::zero(),
                        $details->discountDays ?? 0,
                    )
                        ->fromEndOfMonth($details->endOfMonth)
                        ->withDeposit($details->deposit ?? BigDecimal::zero())
                        ->inInstalments($details->instalments),
                ),
            );
        }
        $problems->apply('paid_through', fn () => $supplier->isPaidThrough($details->paidThrough));
    }

    private function freight(Supplier $supplier, SupplierDetails $details, Problems $problems): void
    {
        $problems->apply(
            'freight_kind',
            fn () => $supplier->reckonsFreight($details->freightKind, $details->freightSteps, $details->palletKg),
        );
        $supplier->ships($details->freight, $supplier->fullLoadKg());
        $problems->apply('minimum', fn () => $supplier->asksFor($details->minimum, $details->freeFreight));
    }
}
