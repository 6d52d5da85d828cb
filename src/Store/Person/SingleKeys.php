<?php

declare(strict_types=1);

namespace TallBarrel\Store\Person;

use TallBarrel\Core\InvalidValue;

/**
 * Which keys do something by themselves, without Alt. Each can be changed or left out, because one who speaks to the
 * computer, or whose hand shakes, sets them off unmeant (WCAG 2.2, 2.1.4).
 */
final readonly class SingleKeys
{
    /** @param array<string, string> $keys by the name of the act; empty for none */
    private function __construct(private array $keys)
    {
    }

    public static function usual(): self
    {
        return new self(self::each(static fn (KeyAct $act): string => $act->usual()));
    }

    /** @param array<string, string> $keys as kept; what is not in it is as usual */
    public static function kept(array $keys): self
    {
        return new self(self::each(static fn (KeyAct $act): string => $keys[$act->name] ?? $act->usual()));
    }

    /** @throws InvalidValue */
    public function with(KeyAct $act, string $key): self
    {
        $key = mb_strtolower(trim($key));
        if (mb_strlen($key) > 1) {
            throw InvalidValue::because(sprintf('“%s” is more than one key; expected a single one, or nothing.', $key));
        }
        // Digits are quantities, and choose among the acts of a why.
        if (1 === preg_match('/^[\d+,.\-]$/', $key)) {
            throw InvalidValue::because(sprintf('“%s” begins a quantity; choose a letter or a sign.', $key));
        }

        return new self([$act->name => $key] + $this->keys);
    }

    /** @return list<array{KeyAct, KeyAct, string}> two acts that have one key */
    public function doubles(): array
    {
        $doubles = $first = [];
        foreach (KeyAct::cases() as $act) {
            $key = $this->of($act);
            if ('' === $key) {
                continue;
            }
            if (isset($first[$key])) {
                $doubles[] = [$first[$key], $act, $key];
            }
            $first[$key] ??= $act;
        }

        return $doubles;
    }

    public function of(KeyAct $act): string
    {
        return $this->keys[$act->name];
    }

    /** @return array<string, string> */
    public function all(): array
    {
        return $this->keys;
    }

    /**
     * @param callable(KeyAct): string $key
     *
     * @return array<string, string>
     */
    private static function each(callable $key): array
    {
        $keys = [];
        foreach (KeyAct::cases() as $act) {
            $keys[$act->name] = $key($act);
        }

        return $keys;
    }
}
