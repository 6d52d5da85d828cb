<?php

declare(strict_types=1);

namespace TallBarrel\Store\Supplier;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Store\Type\BigDecimalType;

/**
 * Terms of payment as they are kept; none where no days were agreed.
 *
 * @phpstan-type TermsRow array{int|null, string, int, int|bool, string, string}
 */
#[ORM\Embeddable]
final class AgreedTerms
{
    /** Of supplier s, for a query; to be read by read(). */
    public const COLUMNS = 's.net_days, CAST(s.discount_percent AS CHAR), s.discount_days, s.end_of_month, '
        .'CAST(s.deposit_percent AS CHAR), s.instalments';

    #[ORM\Column(name: 'net_days', nullable: true)]
    private ?int $netDays = null;

    #[ORM\Column(name: 'discount_percent', type: BigDecimalType::NAME, precision: 5, scale: 2)]
    private BigDecimal $discountPercent;

    #[ORM\Column(name: 'discount_days')]
    private int $discountDays = 0;

    #[ORM\Column(name: 'end_of_month', options: ['default' => false])]
    private bool $endOfMonth = false;

    #[ORM\Column(
        name: 'deposit_percent',
        type: BigDecimalType::NAME,
        precision: 5,
        scale: 2,
        options: ['default' => '0.00'],
    )]
    private BigDecimal $depositPercent;

    /** Percent "@" days, such as "50@30 50@60". */
    #[ORM\Column(name: 'instalments', length: 120, options: ['default' => ''])]
    private string $instalments = '';

    private function __construct()
    {
        $this->discountPercent = $this->depositPercent = BigDecimal::zero();
    }

    public static function none(): self
    {
        return new self();
    }

    public static function of(PaymentTerms $terms): self
    {
        $agreed = new self();
        $agreed->netDays = $terms->netDays;
        $agreed->discountPercent = $terms->discountPercent;
        $agreed->discountDays = $terms->discountDays;
        $agreed->endOfMonth = $terms->endOfMonth;
        $agreed->depositPercent = $terms->depositPercent;
        $agreed->instalments = $terms->instalmentsLabel();

        return $agreed;
    }

    public function terms(): ?PaymentTerms
    {
        return self::read([
            $this->netDays,
            (string) $this->discountPercent,
            $this->discountDays,
            $this->endOfMonth,
            (string) $this->depositPercent,
            $this->instalments,
        ]);
    }

    /** @param TermsRow $row the columns, in their order */
    public static function read(array $row): ?PaymentTerms
    {
        [$netDays, $discount, $discountDays, $endOfMonth, $deposit, $instalments] = $row;

        return null === $netDays
            ? null
            : PaymentTerms::net($netDays, $discount, $discountDays)
                ->fromEndOfMonth((bool) $endOfMonth)
                ->withDeposit($deposit)
                ->inInstalments($instalments);
    }
}
