<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Problems;
use TallBarrel\Store\Person\KeyAct;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Person\SingleKeys;

/** Which keys do something by themselves, as one person wants it. */
final readonly class ChooseKeys
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /**
     * @param array<string, string|null> $typed    by the name of the act
     * @param Problems                   $problems by the same
     */
    public function choose(Person $person, array $typed, Problems $problems): void
    {
        $keys = SingleKeys::usual();
        foreach (KeyAct::cases() as $act) {
            $keys =
                $problems->attempt(
                    $act->name,
                    static fn (): SingleKeys => $keys->with($act, $typed[$act->name] ?? ''),
                ) ?? $keys;
        }
        foreach ($keys->doubles() as [$first, $second, $key]) {
            $problems->refuse(
                $second->name,
                sprintf('“%s” does “%s” already; choose another, or nothing.', $key, $first->words()),
            );
        }
        if ($problems->areNone()) {
            $person->chooseKeys($keys);
            $this->entities->flush();
        }
    }
}
