<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Brick\Math\BigDecimal;
use Symfony\Component\HttpFoundation\Request;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Quantity;

/**
 * What a person typed into a form, read field by field. What cannot be read is kept as typed, with the reason beside it.
 */
final class Fields
{
    /** @var array<string, string> */
    public array $errors = [];

    /** @param array<string, mixed> $typed */
    private function __construct(public readonly array $typed)
    {
    }

    public static function of(Request $request): self
    {
        /** @var array<string, mixed> $typed */
        $typed = $request->request->all();

        return new self($typed);
    }

    /** What stands in the address instead of in a form. */
    public static function query(Request $request): self
    {
        /** @var array<string, mixed> $typed */
        $typed = $request->query->all();

        return new self($typed);
    }

    public static function none(): self
    {
        return new self([]);
    }

    public function text(string $name, int $longest = 200): string
    {
        $value = $this->typed[$name] ?? '';
        $value = is_string($value) ? trim($value) : '';
        if (mb_strlen($value) > $longest) {
            $this->refuse($name, sprintf('At most %d characters fit here.', $longest));
        }

        return $value;
    }

    /** @return array<int, string> what was typed in "name[id]" */
    public function each(string $name): array
    {
        $values = [];
        foreach (is_array($this->typed[$name] ?? null) ? $this->typed[$name] : [] as $id => $value) {
            if (is_int($id) && is_string($value)) {
                $values[$id] = trim($value);
            }
        }

        return $values;
    }

    /** A quantity of 0 or more; null when empty, or unreadable with the reason kept under the name. */
    public function quantity(string $name, string $typed): ?BigDecimal
    {
        return $this->attempt($name, static fn (): ?BigDecimal => '' === $typed ? null : Quantity::read($typed));
    }

    /** An amount of money or a price, with up to six decimals. */
    public function price(string $name, string $typed): ?BigDecimal
    {
        return $this->attempt($name, static function () use ($typed): ?BigDecimal {
            $clean = str_replace([' ', "\u{a0}"], '', $typed);
            $clean = 1 === preg_match('/^\d+,\d{1,6}$/', $clean) && 1 !== preg_match('/^\d{1,3},\d{3}$/', $clean) ? str_replace(',', '.', $clean) : str_replace(',', '', $clean);
            if ('' === $clean) {
                return null;
            }
            if (1 !== preg_match('/^\d{1,9}(\.\d{1,6})?$/', $clean)) {
                throw InvalidValue::notANumber($typed, 'an amount of 0 or more, such as 9.30');
            }

            return BigDecimal::of($clean);
        });
    }

    /** A day as the browser sends it. */
    public function day(string $name, string $typed): ?\DateTimeImmutable
    {
        return $this->attempt($name, static function () use ($typed): ?\DateTimeImmutable {
            if ('' === $typed) {
                return null;
            }
            $day = \DateTimeImmutable::createFromFormat('!Y-m-d', $typed);
            if (false === $day || $day->format('Y-m-d') !== $typed) {
                throw InvalidValue::because(sprintf('“%s” is not a day; expected one such as 2026-11-30.', $typed));
            }

            return $day;
        });
    }

    /**
     * @template T
     *
     * @param callable(): T $read
     *
     * @return T|null
     */
    public function attempt(string $name, callable $read): mixed
    {
        try {
            return $read();
        } catch (InvalidValue $invalid) {
            $this->refuse($name, $invalid->getMessage());

            return null;
        }
    }

    /**
     * Carries out a change; what it refuses stands beside the field.
     *
     * @param callable(): void $change
     */
    public function apply(string $name, callable $change): void
    {
        $this->attempt($name, static function () use ($change): bool {
            $change();

            return true;
        });
    }

    public function refuse(string $name, string $reason): void
    {
        $this->errors[$name] ??= $reason;
    }

    public function isGood(): bool
    {
        return [] === $this->errors;
    }
}
