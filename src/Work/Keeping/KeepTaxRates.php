<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\TaxRate;
use TallBarrel\Store\Business\TaxRates;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Supplier;

/** Rates of tax by name: one more, or the next of a name from a day on; a mistake is taken out again. */
final readonly class KeepTaxRates
{
    public function __construct(
        private EntityManagerInterface $entities,
        private TaxRates $rates,
        private CurrentBusiness $business,
        private Audit $audit,
    ) {
    }

    /** @param Problems $problems takes what stands in the way, by field; nothing is saved then */
    public function add(string $name, ?Tax $tax, ?\DateTimeImmutable $from, Person $by, Problems $problems): void
    {
        if (null === $tax && !$problems->concern('rate')) {
            $problems->refuse('rate', 'Say the rate, such as 23, or why there is none, such as reverse charge.');
        }
        if (null === $from && !$problems->concern('from')) {
            $problems->refuse('from', 'Say from which day it holds.');
        }
        if (null === $tax || null === $from) {
            return;
        }
        $problems->apply('name', function () use ($name, $tax, $from, $by): void {
            $rate = new TaxRate(trim($name), $tax, $from);
            $known = $this->entities
                ->getRepository(TaxRate::class)
                ->findOneBy(['name' => $rate->name, 'fromDay' => $from]);
            if (null !== $known) {
                throw InvalidValue::because(
                    sprintf('“%s” is %s from that day already.', $known->name, $known->tax()->words()),
                );
            }
            $this->entities->persist($rate);
            $this->audit->note($by, 'tax rates', self::words($rate));
            $this->entities->flush();
            $this->rates->reset();
        });
    }

    /**
     * At which rate we account for tax that is not charged.
     *
     * @param string   $name     of one of them; empty for none
     * @param Problems $problems takes what is wrong with it
     */
    public function accountBy(string $name, Person $by, Problems $problems): void
    {
        $rate = '' === $name ? null : $this->rates->named($name);
        if ('' !== $name && true !== $rate?->percent->isPositive()) {
            $problems->refuse('own', sprintf('“%s” is no rate above 0 of today; choose one, or none.', $name));

            return;
        }
        $this->business->get()->accountForTaxBy($name);
        $this->audit->note($by, 'tax rates', '' === $name
            ? 'We account for no tax ourselves'
            : sprintf('What is not charged we account for at %s', $name));
        $this->entities->flush();
    }

    /** @throws Refused if it is the last of a name that somebody is taxed by */
    public function takeOut(TaxRate $rate, Person $by): void
    {
        $alike = $this->entities->getRepository(TaxRate::class)->count(['name' => $rate->name]);
        $taxed = $alike > 1 ? null : $this->taxedBy($rate->name);
        if (null !== $taxed) {
            throw new Refused(sprintf('%s is taxed at “%s”; choose another there first.', $taxed, $rate->name));
        }
        if ($alike <= 1 && 0 === strcasecmp($this->business->get()->ownTax(), $rate->name)) {
            throw new Refused(sprintf('We account for tax at “%s” ourselves; choose another first.', $rate->name));
        }
        $this->audit->note($by, 'tax rates', 'Taken out: '.self::words($rate));
        $this->entities->remove($rate);
        $this->entities->flush();
        $this->rates->reset();
    }

    private function taxedBy(string $name): ?string
    {
        return $this->entities->getRepository(Supplier::class)->findOneBy(['taxName' => $name])?->name()
            ?? $this->entities->getRepository(Item::class)->findOneBy(['taxName' => $name])?->name();
    }

    private static function words(TaxRate $rate): string
    {
        return sprintf('%s, %s from %s', $rate->name, $rate->tax()->words(), $rate->fromDay->format('j M Y'));
    }
}
