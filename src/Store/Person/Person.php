<?php

declare(strict_types=1);

namespace TallBarrel\Store\Person;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Security\Core\User\PasswordAuthenticatedUserInterface;
use Symfony\Component\Security\Core\User\UserInterface;
use TallBarrel\Core\EmailAddress;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Ordering\SpendingLimit;
use TallBarrel\Core\Ordering\SpentLately;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Type\BigDecimalType;

/** Somebody who works here. */
#[ORM\Entity]
class Person implements UserInterface, PasswordAuthenticatedUserInterface
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** @var array<string, string>|null by the name of the act; null for as usual */
    #[ORM\Column(name: 'single_keys', type: 'json', nullable: true)]
    private ?array $keys = null;

    /** The same for a month. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2, nullable: true)]
    private ?BigDecimal $monthlyLimit = null;

    /** Who says yes in their place while they are away. */
    #[ORM\ManyToOne]
    private ?Person $standIn = null;

    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $standInUntil = null;

    /** @var list<string>|null what their role may do here, where the owner said so; not kept with them */
    private ?array $granted = null;

    /** Since when they may no longer sign in. */
    #[ORM\Column(type: 'datetime_immutable', nullable: true)]
    private ?\DateTimeImmutable $blockedAt = null;

    /** Where they work; what they see begins with it. */
    #[ORM\ManyToOne]
    private ?Site $site = null;

    /** @var list<int> ids of the sites they may see; empty for all */
    #[ORM\Column(type: 'json', options: ['default' => '[]'])]
    private array $seenSites = [];

    /** Who is asked first for a yes. */
    #[ORM\ManyToOne]
    private ?Person $approver = null;

    /** Whether they may handle orders of others, or only their own. */
    #[ORM\Column(options: ['default' => true])]
    private bool $handlesAll = true;

    /** Of their one-time codes (RFC 6238), base 32; null where none are asked for. */
    #[ORM\Column(length: 64, nullable: true)]
    private ?string $codeSecret = null;

    /** The time step of the last code taken, so that none serves twice. */
    #[ORM\Column(type: 'bigint', nullable: true)]
    private ?int $lastCodeStep = null;

    public function __construct(
        #[ORM\Column(length: 180, unique: true)] private string $email,
        #[ORM\Column(length: 80)] private string $name,
        #[ORM\Column(length: 20, enumType: Role::class)] private Role $role,
        /** Most they may order without a yes from above, in the home currency; null for no limit. */
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2, nullable: true),]
        private ?BigDecimal $spendingLimit,
        #[ORM\Column(length: 255)] private string $password = '',
    ) {
    }

    public function email(): string
    {
        return $this->email;
    }

    public function name(): string
    {
        return $this->name;
    }

    public function role(): Role
    {
        return $this->role;
    }

    /** @throws InvalidValue without a name, or with what is no address */
    public function introduce(string $name, string $email, Role $role): void
    {
        $this->name = '' !== trim($name) ? trim($name) : throw InvalidValue::because('A person needs a name.');
        $this->email = EmailAddress::read($email);
        $this->role = $role;
    }

    /** @throws InvalidValue if it is they themselves who are asked */
    public function work(?Site $site, ?self $approver, bool $handlesAll): void
    {
        if ($approver === $this) {
            throw InvalidValue::because('Nobody says yes to themselves.');
        }
        $this->site = $site;
        $this->approver = $approver;
        $this->handlesAll = $handlesAll;
    }

    /**
     * @param list<Site> $sites none for all
     *
     * @throws InvalidValue if where they work is none of them
     */
    public function sees(array $sites): void
    {
        self::mustSee($this->site, $sites);
        $this->seenSites = array_values(array_map(static fn (Site $site): int => $site->id, $sites));
    }

    /**
     * @param list<Site> $sites none for all
     *
     * @throws InvalidValue
     */
    public static function mustSee(?Site $whereTheyWork, array $sites): void
    {
        if ([] !== $sites && null !== $whereTheyWork && !in_array($whereTheyWork, $sites, true)) {
            throw InvalidValue::because(
                sprintf('Whoever works at %s has to see it.', $whereTheyWork->name()),
            );
        }
    }

    /** @return list<int> ids; empty for all */
    public function seenSites(): array
    {
        return $this->seenSites;
    }

    public function site(): ?Site
    {
        return $this->site;
    }

    public function approver(): ?self
    {
        return $this->approver;
    }

    /** Whom they ask for a yes on a day: their approver, or who stands in for them; null for whoever may give it. */
    public function asks(\DateTimeImmutable $today): ?self
    {
        $approver = $this->approver;
        if (true === $approver?->isStoodInForOn($today) && $approver->standIn() !== $this) {
            $approver = $approver->standIn();
        }

        return true === $approver?->isBlocked() ? null : $approver;
    }

    public function handlesAll(): bool
    {
        return $this->handlesAll;
    }

    public function mayHandleOrdersOf(?self $other): bool
    {
        return $this->handlesAll || $other === $this || true === $other?->isStoodInForBySomebody($this);
    }

    private function isStoodInForBySomebody(self $other): bool
    {
        return $this->standIn === $other;
    }

    public function block(\DateTimeImmutable $now): void
    {
        $this->blockedAt ??= $now;
    }

    public function unblock(): void
    {
        $this->blockedAt = null;
    }

    public function isBlocked(): bool
    {
        return null !== $this->blockedAt;
    }

    /** Whether they can sign in at all: those invited cannot before they chose a password. */
    public function hasPassword(): bool
    {
        return '' !== $this->password;
    }

    /** @param string|null $secret base 32; null to ask for codes no longer */
    public function useCodes(?string $secret): void
    {
        $this->codeSecret = $secret;
        $this->lastCodeStep = null;
    }

    public function codeSecret(): ?string
    {
        return $this->codeSecret;
    }

    public function lastCodeStep(): ?int
    {
        return $this->lastCodeStep;
    }

    public function tookCode(int $step): void
    {
        $this->lastCodeStep = $step;
    }

    public function initials(): string
    {
        $words = explode(' ', $this->name);

        return mb_strtoupper(
            mb_substr($words[0], 0, 1).(count($words) > 1 ? mb_substr($words[count($words) - 1], 0, 1) : ''),
        );
    }

    public function firstName(): string
    {
        return explode(' ', $this->name)[0];
    }

    public function limit(): SpendingLimit
    {
        return SpendingLimit::of($this->spendingLimit, $this->monthlyLimit);
    }

    public function limitTo(SpendingLimit $limit): void
    {
        $this->spendingLimit = $limit->anOrder;
        $this->monthlyLimit = $limit->aMonth;
    }

    /**
     * @param \DateTimeImmutable|null $until the last day
     *
     * @throws InvalidValue if it is they themselves, or one of the two is missing
     */
    public function isStoodInForBy(?self $other, ?\DateTimeImmutable $until): void
    {
        if ($other === $this) {
            throw InvalidValue::because('Nobody stands in for themselves.');
        }
        if ((null === $other) !== (null === $until)) {
            throw InvalidValue::because(
                null === $other ? 'Who stands in until then?' : 'Until which day do they stand in?',
            );
        }
        $this->standIn = $other;
        $this->standInUntil = $until;
    }

    public function isStoodInForOn(\DateTimeImmutable $day): bool
    {
        return null !== $this->standIn && $day->format('Y-m-d') <= $this->standInUntil?->format('Y-m-d');
    }

    public function standIn(): ?self
    {
        return $this->standIn;
    }

    public function standInUntil(): ?\DateTimeImmutable
    {
        return $this->standInUntil;
    }

    /** @param list<Right> $rights what their role may do in this business */
    public function mayDo(array $rights): void
    {
        $this->granted = Role::asRoles($rights);
    }

    /** Whether they are one of those who are asked. */
    public function mayApprove(): bool
    {
        return in_array('ROLE_APPROVE', $this->role->grants(), true);
    }

    public function maySpend(Money $home): bool
    {
        return null === $this->limit()->objection($home->amount, SpentLately::nothing());
    }

    public function keys(): SingleKeys
    {
        return SingleKeys::kept($this->keys ?? []);
    }

    public function chooseKeys(SingleKeys $keys): void
    {
        $this->keys = $keys->all();
    }

    public function usePassword(string $hash): void
    {
        $this->password = $hash;
    }

    public function getPassword(): string
    {
        return $this->password;
    }

    /** @return list<string> */
    public function getRoles(): array
    {
        return $this->granted ?? $this->role->grants();
    }

    public function eraseCredentials(): void
    {
    }

    /**
     * What of somebody is kept in a session: who it is, and by what is seen that the password has changed; never the
     * password's hash itself.
     *
     * @return array{id: int, email: string, password: string}
     */
    public function __serialize(): array
    {
        return ['id' => $this->id, 'email' => $this->email, 'password' => hash('crc32c', $this->password)];
    }

    /** @param array{id: int, email: string, password: string} $kept */
    public function __unserialize(array $kept): void
    {
        ['id' => $this->id, 'email' => $this->email, 'password' => $this->password] = $kept;
    }

    public function getUserIdentifier(): string
    {
        return '' === $this->email ? throw new \LogicException('A person without an email address.') : $this->email;
    }
}
