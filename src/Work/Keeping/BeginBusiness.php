<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Country;
use TallBarrel\Core\EmailAddress;
use TallBarrel\Core\Money\Currency;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\Business;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Person\Role;
use TallBarrel\Store\Planning\PolicySetting;
use TallBarrel\Store\Site\Site;

/** Opens a business of one's own: the business itself, its first site and its owner, or nothing. */
final readonly class BeginBusiness
{
    /** What a line of an order and a year of keeping stock cost until the owner says otherwise. */
    private const ORDER_COST = '4.00';
    private const HOLDING_PERCENT = '20';

    public function __construct(
        private EntityManagerInterface $entities,
        private CurrentBusiness $business,
        private ChoosePassword $passwords,
        private AllOrNothing $whole,
        private Audit $audit,
    ) {
    }

    /**
     * @param Problems $problems takes what stands in the way, by field; nothing is saved then
     *
     * @throws Refused if there is a business already
     */
    public function begin(FirstFacts $facts, Problems $problems): ?Person
    {
        $this->refuseSecond();
        foreach (['name' => 'the business', 'site' => 'the first site', 'owner' => 'the owner'] as $field => $what) {
            if ('' === trim($facts->{$field})) {
                $problems->refuse($field, sprintf('Say what %s is called.', $what));
            }
        }
        $problems->attempt('country', static fn (): string => Country::read((string) $facts->country));
        $currency = $problems->attempt('currency', static fn (): Currency => Currency::of((string) $facts->currency));
        $email = $problems->attempt('email', static fn (): string => EmailAddress::read($facts->email));
        $problems->apply('password', fn () => $this->passwords->check($facts->password, $email ?? ''));
        if (!$problems->areNone() || null === $currency || null === $email) {
            return null;
        }

        return $this->whole->take(function () use ($facts, $currency, $email): Person {
            // The key of the one business: of two who begin at once, the second is told.
            $this->entities->getConnection()->executeQuery('SELECT id FROM business FOR UPDATE');
            $this->refuseSecond();
            $business = new Business(
                trim($facts->name),
                '',
                '',
                $currency->code,
                BigDecimal::of(self::ORDER_COST),
                BigDecimal::of(self::HOLDING_PERCENT),
                null,
            );
            $business->introduce($facts->name, '', '', (string) $facts->country);
            $business->writeNumbersWith($facts->mark);
            $this->entities->persist($business);
            $this->entities->persist(new Site(self::code($facts->site), $facts->site, '', ''));
            $owner = new Person($email, trim($facts->owner), Role::Owner, null);
            $this->passwords->give($owner, $facts->password);
            $this->entities->persist($owner);
            if (0 === $this->entities->getRepository(PolicySetting::class)->count()) {
                array_map($this->entities->persist(...), PolicySetting::standard());
            }
            $this->entities->flush();
            $this->audit->note($owner, 'business', 'Begun as '.$business->name());

            return $owner;
        });
    }

    private function refuseSecond(): void
    {
        if (null !== $this->business->find()) {
            throw new Refused('There is a business here already. Sign in instead.');
        }
    }

    /** A short code of capital letters from a name: "Ferry Lane" becomes FERRY. */
    private static function code(string $name): string
    {
        $latin = \Transliterator::create('Any-Latin; Latin-ASCII; Upper()')?->transliterate($name);
        $word = preg_replace('/[^A-Z0-9]+/', ' ', (string) $latin) ?? '';
        $first = explode(' ', trim($word))[0];

        return '' === $first ? 'SITE' : substr($first, 0, 10);
    }
}
