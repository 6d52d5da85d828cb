<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Problems;
use TallBarrel\Core\VisitLength;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Person\Right;
use TallBarrel\Store\Person\Role;

/** Says what each role may see and do. */
final readonly class SetRights
{
    public function __construct(
        private EntityManagerInterface $entities,
        private CurrentBusiness $business,
        private Audit $audit,
    ) {
    }

    /**
     * @param array<string, list<Right>>     $asked    by role
     * @param array<string, BigDecimal|null> $limits   by role, up to what value it puts stock right; null for no limit
     * @param int|null                       $idle     minutes somebody stays signed in without doing anything; null
     *                                                 to leave it
     * @param int|null                       $most     hours at the most
     * @param Problems                       $problems takes what stands in the way, by role; nothing is saved then
     */
    public function set(array $asked, array $limits, ?int $idle, ?int $most, Person $by, Problems $problems): void
    {
        $business = $this->business->get();
        $length = $business->visitLength();
        $problems->apply('stay', fn () => $business->letStay(VisitLength::of(
            $idle ?? $length->idleMinutes,
            $most ?? $length->mostHours,
        )));
        if (!$business->visitLength()->equals($length)) {
            $this->audit->note($by, 'rights', sprintf(
                'People stay signed in for %d minutes idle and %d hours at most, was %d and %d',
                $business->visitLength()->idleMinutes,
                $business->visitLength()->mostHours,
                $length->idleMinutes,
                $length->mostHours,
            ));
        }
        foreach ($asked as $name => $rights) {
            $role = Role::from($name);
            $before = array_column($business->rightsOf($role), 'value');
            $problems->apply($name, static fn () => $business->allow($role, $rights));
            $after = array_column($business->rightsOf($role), 'value');
            if ($before !== $after) {
                $this->audit->note($by, 'rights', sprintf(
                    '%s: from %s to %s',
                    $name,
                    implode(' ', $before),
                    implode(' ', $after),
                ));
            }
        }
        foreach ($limits as $name => $limit) {
            $role = Role::from($name);
            $before = $business->stockLimit($role);
            $problems->apply('limit-'.$name, static fn () => $business->putsRightUpTo($role, $limit));
            if ($before?->toString() !== $business->stockLimit($role)?->toString()) {
                $this->audit->note($by, 'rights', sprintf(
                    '%s puts stock right up to %s, was %s',
                    $name,
                    $limit ?? 'any value',
                    $before ?? 'any value',
                ));
            }
        }
        if ($problems->areNone()) {
            $this->entities->flush();
        } else {
            $this->entities->clear();
        }
    }
}
