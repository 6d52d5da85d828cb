<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Brick\Math\BigDecimal;
use Symfony\Component\HttpFoundation\Request;
use TallBarrel\Core\Day;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Quantity\Numerals;
use TallBarrel\Store\Business\TaxRates;

/**
 * What a person typed into a form, read field by field. What cannot be read is kept as typed, with the reason beside
 * it.
 */
final readonly class Fields
{
    /** Where a request carries how the business writes numbers; see ReadNumbers. */
    public const NUMERALS = '_numerals';
    /** Where it carries the rates of tax that have a name. */
    public const TAXES = '_taxes';

    public Problems $problems;

    /** @param array<array-key, mixed> $typed */
    private function __construct(public array $typed, public Numerals $numerals, private ?TaxRates $taxes = null)
    {
        $this->problems = new Problems();
    }

    public static function of(Request $request): self
    {
        $taxes = $request->attributes->get(self::TAXES);

        return new self(
            $request->request->all(),
            self::numeralsOf($request),
            $taxes instanceof TaxRates ? $taxes : null,
        );
    }

    /** What stands in the address instead of in a form. */
    public static function query(Request $request): self
    {
        return new self($request->query->all(), self::numeralsOf($request));
    }

    public static function none(): self
    {
        return new self([], Numerals::with(Numerals::POINT));
    }

    private static function numeralsOf(Request $request): Numerals
    {
        $numerals = $request->attributes->get(self::NUMERALS);

        return $numerals instanceof Numerals ? $numerals : Numerals::with(Numerals::POINT);
    }

    /** @param string $missing what an empty field stands for */
    public function text(string $name, int $longest = 200, string $missing = ''): string
    {
        $value = $this->typed[$name] ?? '';
        $value = is_string($value) ? trim($value) : '';
        if (mb_strlen($value) > $longest) {
            $this->refuse($name, sprintf('At most %d characters fit here.', $longest));
            // What goes on is never longer than what it goes into; what was typed stays whole.
            $value = mb_substr($value, 0, $longest);
        }

        return '' === $value ? $missing : $value;
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
        return $this->attempt($name, fn (): ?BigDecimal => '' === $typed ? null : $this->numerals->quantity($typed));
    }

    /** An amount of money or a price, with up to six decimals. */
    public function price(string $name, string $typed): ?BigDecimal
    {
        return $this->attempt($name, fn (): ?BigDecimal => '' === $typed ? null : $this->numerals->price($typed));
    }

    /** An amount that may be below 0, with either minus. */
    public function signed(string $name, string $typed): ?BigDecimal
    {
        $plain = (string) preg_replace('/^[-\x{2212}]\s*/u', '', trim($typed), count: $minus);
        $amount = $this->price($name, $plain);

        return 0 === $minus ? $amount : $amount?->negated();
    }

    /** A rate of tax: by its name, as a figure, or why there is none; null when empty. */
    public function tax(string $name, string $typed): ?Tax
    {
        return $this->attempt($name, fn (): ?Tax => '' === $typed ? null : $this->readTax($typed));
    }

    /** @throws InvalidValue */
    public function readTax(string $typed): Tax
    {
        return $this->taxes?->named($typed) ?? Tax::read($typed, $this->numerals);
    }

    /** A day as the browser sends it. */
    public function day(string $name, string $typed): ?\DateTimeImmutable
    {
        return $this->attempt($name, static fn (): ?\DateTimeImmutable => '' === $typed ? null : Day::read($typed));
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
        return $this->problems->attempt($name, $read);
    }

    /**
     * Carries out a change; what it refuses stands beside the field.
     *
     * @param callable(): void $change
     */
    public function apply(string $name, callable $change): void
    {
        $this->problems->apply($name, $change);
    }

    public function refuse(string $name, string $reason): void
    {
        $this->problems->refuse($name, $reason);
    }

    /** @return array<string, string> reasons by field */
    public function errors(): array
    {
        return $this->problems->all();
    }

    public function isGood(): bool
    {
        return $this->problems->areNone();
    }
}
