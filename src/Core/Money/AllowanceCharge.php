<?php

declare(strict_types=1);

namespace TallBarrel\Core\Money;

use Brick\Math\BigDecimal;
use Brick\Math\BigNumber;
use TallBarrel\Core\InvalidValue;

/**
 * A charge on a whole document, or an allowance off it: an amount, or percents of its lines; perhaps only while these
 * come to less than something (a fee for small orders).
 *
 * @phpstan-type AllowanceChargeData array{kind: string, reason: string, amount: ?string, percent: ?string,
 *      below: ?string, category: string, tax: string}
 */
final readonly class AllowanceCharge
{
    private const CHARGE = 'charge';
    private const ALLOWANCE = 'allowance';

    private function __construct(
        public bool $isCharge,
        public string $reason,
        public ?BigDecimal $amount,
        public ?BigDecimal $percent,
        public Tax $tax,
        public ?BigDecimal $below,
    ) {
    }

    /**
     * Source: EN 16931-1:2017, BR-33 and BR-38: an allowance or charge has a reason. Percents are
     * of the sum of the lines (BT-93, BT-100).
     *
     * @param BigDecimal|null $below in the document's currency; null for always
     *
     * @throws InvalidValue without a reason, or with an amount of 0 or less, or with an allowance above 100 %
     */
    public static function of(
        bool $isCharge,
        string $reason,
        ?BigDecimal $amount,
        ?BigDecimal $percent,
        Tax $tax,
        ?BigDecimal $below = null,
    ): self {
        $reason = trim($reason);
        $figure = $percent ?? $amount;
        $objection = match (true) {
            '' === $reason => 'Say what it is for, such as packing.',
            null === $figure => sprintf('How much is “%s”? Type an amount, or percents such as 2 %%.', $reason),
            !$figure->isPositive() => sprintf('“%s” is %s; expected above 0.', $reason, $figure),
            !$isCharge && true === $percent?->isGreaterThan(100) => sprintf(
                '“%s” takes %s %% off; expected no more than 100.',
                $reason,
                $percent,
            ),
            default => null,
        };
        if (null !== $objection) {
            throw InvalidValue::because($objection);
        }

        return new self($isCharge, $reason, null === $percent ? $amount : null, $percent, $tax, $below);
    }

    /** @param AllowanceChargeData $data */
    public static function fromArray(array $data): self
    {
        $decimal = static fn (?string $figure): ?BigDecimal => null === $figure ? null : BigDecimal::of($figure);

        return self::of(
            self::CHARGE === $data['kind'],
            $data['reason'],
            $decimal($data['amount']),
            $decimal($data['percent']),
            Tax::of(TaxCategory::from($data['category']), $data['tax']),
            $decimal($data['below']),
        );
    }

    /** By its words, in the languages papers are written in. */
    public function isFreight(): bool
    {
        return 1 === preg_match('/freight|carriage|shipping|transport|fracht|versand|port\b/iu', $this->reason);
    }

    /** @return AllowanceChargeData */
    public function toArray(): array
    {
        $text = static fn (?BigNumber $figure): ?string => null === $figure ? null : (string) $figure;

        return [
            'kind' => $this->isCharge ? self::CHARGE : self::ALLOWANCE,
            'reason' => $this->reason,
            'amount' => $text($this->amount),
            'percent' => $text($this->percent),
            'below' => $text($this->below),
            'category' => $this->tax->category->value,
            'tax' => (string) $this->tax->percent,
        ];
    }

    /** What it is, with its own figure: the same words are the same adjustment. */
    public function words(): string
    {
        return implode(
            ' ',
            array_filter(
                [
                    $this->reason,
                    $this->isCharge ? '' : 'less',
                    null === $this->percent
                        ? (string) $this->amount?->strippedOfTrailingZeros()
                        : $this->percent->strippedOfTrailingZeros().' %',
                    null === $this->below ? '' : 'below '.$this->below->strippedOfTrailingZeros(),
                ],
                static fn (string $word): bool => '' !== $word,
            ),
        );
    }

    /** What it comes to, never below 0: rounded to the minor unit (BR-DEC-01, BR-DEC-05). */
    public function on(Money $lines): Money
    {
        return match (true) {
            null !== $this->below && !$lines->amount->isLessThan($this->below) => Money::zero($lines->currency),
            null !== $this->percent => $lines->percent($this->percent)->rounded(),
            default => Money::of($this->amount ?? 0, $lines->currency)->rounded(),
        };
    }
}
