<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Brick\Math\BigDecimal;
use Brick\Math\BigNumber;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Core\Quantity\Numerals;
use TallBarrel\Store\Business\CurrentBusiness;
use Twig\Attribute\AsTwigFilter;
use Twig\Attribute\AsTwigFunction;

/**
 * How figures, money and days are written, everywhere: with the decimal mark of the business, so that what stands in a
 * field reads the same when it is sent back.
 */
final class Format
{
    /** @var non-empty-string */
    private static string $mark = Numerals::POINT;

    /** Whether amounts of money are left out. */
    private static bool $hidden = false;

    /** Figures are written as in Irish English: 1,234.50; €, £ and US$ before the amount. */
    private const LOCALE = 'en_IE';
    private const HIDDEN = '···';

    public function __construct(
        private readonly ClockInterface $clock,
        private readonly Shell $shell,
        private readonly CurrentBusiness $business,
    ) {
    }

    /**
     * With which decimal mark figures are written from now on; set for each request and command, see HouseMark.
     *
     * @param non-empty-string $mark
     */
    public static function writeWith(string $mark): void
    {
        self::$mark = $mark;
    }

    /** Whether amounts of money are left out from now on; see WithoutCosts. */
    public static function hideMoney(bool $hidden): void
    {
        self::$hidden = $hidden;
    }

    /** A number with grouped thousands and so many decimals. */
    public static function number(float $number, int $decimals = 0): string
    {
        return number_format($number, $decimals, self::$mark, Numerals::POINT === self::$mark ? ',' : '.');
    }

    /** "€1,234.50", to the cents of its currency; whole when there is no need for them. */
    #[AsTwigFilter('money')]
    public static function money(Money $money, bool $whole = false): string
    {
        $decimals = $whole ? 0 : $money->currency->decimals;

        return self::inCurrency($money->rounded()->amount->toFloat(), $money->currency->code, $decimals);
    }

    /** An amount in the business's own currency, with so many decimals, or up to so many where they are needed. */
    #[AsTwigFilter('home')]
    public function home(BigNumber|float|int|string|null $amount, int $decimals = 2, ?int $most = null): string
    {
        return null === $amount
            ? '–'
            : self::inCurrency((float) (string) $amount, $this->business->get()->currency, $decimals, $most);
    }

    /** An amount in the currency named, with so many decimals, or up to so many where they are needed. */
    #[AsTwigFilter('in_currency')]
    public static function figureInCurrency(
        BigNumber|float|int|string $amount,
        string $currency,
        int $decimals = 2,
        ?int $most = null,
    ): string {
        return self::inCurrency((float) (string) $amount, $currency, $decimals, $most);
    }

    /** "US$1,234.50": the symbol and its place as ICU has them for our locale. */
    public static function inCurrency(float $amount, string $currency, int $decimals, ?int $most = null): string
    {
        if (self::$hidden) {
            return self::HIDDEN;
        }
        $text = (string) self::currencies($decimals, $most ?? $decimals)->formatCurrency($amount, $currency);

        // Nothing is no minus, and a minus is as wide as a plus.
        return str_replace('-', 0 === preg_match('/[1-9]/', $text) ? '' : '−', $text);
    }

    /** One for each way of writing: setting one up takes longer than writing with it. */
    private static function currencies(int $decimals, int $most): \NumberFormatter
    {
        /** @var array<string, \NumberFormatter> $formatters */
        static $formatters = [];
        $key = self::$mark.$decimals.'-'.$most;
        if (!isset($formatters[$key])) {
            $formatters[$key] = $formatter = new \NumberFormatter(self::LOCALE, \NumberFormatter::CURRENCY);
            $formatter->setSymbol(\NumberFormatter::MONETARY_SEPARATOR_SYMBOL, self::$mark);
            $formatter->setSymbol(
                \NumberFormatter::MONETARY_GROUPING_SEPARATOR_SYMBOL,
                Numerals::POINT === self::$mark ? ',' : '.',
            );
            $formatter->setAttribute(\NumberFormatter::MIN_FRACTION_DIGITS, $decimals);
            $formatter->setAttribute(\NumberFormatter::MAX_FRACTION_DIGITS, $most);
            $formatter->setAttribute(\NumberFormatter::ROUNDING_MODE, \NumberFormatter::ROUND_HALFUP);
        }

        return $formatters[$key];
    }

    /** The bare amount, for a column whose heading names the currency. */
    #[AsTwigFilter('amount')]
    public static function amount(Money $money): string
    {
        return self::$hidden
            ? self::HIDDEN
            : self::number($money->rounded()->amount->toFloat(), $money->currency->decimals);
    }

    /** All its decimals, two at least. */
    #[AsTwigFilter('price')]
    public static function price(BigDecimal $price): string
    {
        return self::$hidden ? self::HIDDEN
            : self::number($price->toFloat(), max(2, $price->strippedOfTrailingZeros()->getScale()));
    }

    /** A price as it stands in a field: cents at least, no grouping. */
    #[AsTwigFilter('price_field')]
    public static function priceField(BigDecimal $price): string
    {
        $decimals = max(2, $price->strippedOfTrailingZeros()->getScale());

        return str_replace('.', self::$mark, (string) $price->toScale($decimals));
    }

    /** What the eye needs of a price: cents, and below ten so many more that four figures count; all of it on paper. */
    #[AsTwigFilter('short_price')]
    public static function shortPrice(BigNumber|float|int|string|null $price): string
    {
        if (null === $price || self::$hidden) {
            return null === $price ? '–' : self::HIDDEN;
        }
        $amount = (float) (string) $price;
        $decimals = 0.0 === $amount ? 2 : max(2, min(6, 3 - (int) floor(log10(abs($amount)))));
        [$whole, $part] = explode(self::$mark, self::number($amount, $decimals));

        return $whole.self::$mark.str_pad(rtrim($part, '0'), 2, '0');
    }

    /** "€" or "US$"; of the business's own currency unless another is named. */
    #[AsTwigFunction('symbol')]
    public function symbol(?string $currency = null): string
    {
        /** @var array<string, string> $symbols */
        static $symbols = [];
        $currency ??= $this->business->get()->currency;

        return $symbols[$currency] ??= (string) (new \NumberFormatter(
            self::LOCALE.'@currency='.$currency,
            \NumberFormatter::CURRENCY,
        ))->getSymbol(\NumberFormatter::CURRENCY_SYMBOL);
    }

    /** "1,400", "2.5": never a trailing zero. */
    #[AsTwigFilter('figure')]
    public static function figure(BigNumber|float|int|string|null $figure, int $decimals = 3): string
    {
        if (null === $figure) {
            return '–';
        }
        $figure = (float) (string) $figure;
        $text = self::number(abs($figure), $decimals);
        $text = str_contains($text, self::$mark) ? rtrim(rtrim($text, '0'), self::$mark) : $text;

        return ($figure < 0 && '0' !== $text ? '−' : '').$text;
    }

    /** As it stands in a field: "2.5", no grouping. */
    #[AsTwigFilter('plain')]
    public static function plain(BigDecimal|float|int|string|null $figure): string
    {
        if (null === $figure || '' === $figure) {
            return '';
        }
        $decimal = is_float($figure) ? BigDecimal::of((string) round($figure, 6)) : BigDecimal::of($figure);

        return str_replace('.', self::$mark, (string) $decimal->strippedOfTrailingZeros());
    }

    /** "Mon 30 Nov", with the year when it is not this one. */
    #[AsTwigFilter('day')]
    public function day(\DateTimeImmutable|string|null $day): string
    {
        if (null === $day) {
            return '–';
        }
        $day = is_string($day) ? new \DateTimeImmutable($day) : $day;

        return $day->format($day->format('Y') === $this->clock->now()->format('Y') ? 'D j M' : 'j M Y');
    }

    #[AsTwigFilter('moment')]
    public function moment(?\DateTimeImmutable $moment): string
    {
        return null === $moment ? '–' : $this->day($moment).' '.$moment->format('H:i');
    }

    /** "today", "tomorrow", "3 days late", or the day. */
    #[AsTwigFilter('until')]
    public function until(\DateTimeImmutable|string $day): string
    {
        $day = is_string($day) ? new \DateTimeImmutable($day) : $day;
        $days = (int) $this->clock->now()->setTime(0, 0)->diff($day->setTime(0, 0))->format('%r%a');

        return match (true) {
            0 === $days => 'today',
            1 === $days => 'tomorrow',
            -1 === $days => '1 day late',
            $days < 0 => -$days.' days late',
            default => $this->day($day),
        };
    }

    /** The name of a field as it is written in the code, in words. */
    #[AsTwigFilter('field_words')]
    public static function fieldWords(string $name): string
    {
        return strtolower((string) preg_replace(['/\./', '/(?<=[a-z])(?=[A-Z])/'], [': ', ' '], $name));
    }

    #[AsTwigFilter('plural')]
    public static function plural(int $count, string $one, ?string $many = null): string
    {
        return self::number($count).' '.(1 === $count ? $one : $many ?? $one.'s');
    }

    /** A day in full as a language writes it. */
    #[AsTwigFilter('written')]
    public static function written(\DateTimeImmutable|string $day, string $language): string
    {
        $day = is_string($day) ? new \DateTimeImmutable($day) : $day;
        $locale = str_starts_with(self::LOCALE, $language) ? self::LOCALE : $language;
        $full = new \IntlDateFormatter($locale, \IntlDateFormatter::FULL, \IntlDateFormatter::NONE, 'UTC');

        return (string) $full->format($day);
    }

    #[AsTwigFilter('mood')]
    public static function mood(OrderState $state): string
    {
        return match ($state) {
            OrderState::AwaitingApproval => 'watch',
            OrderState::Acknowledged, OrderState::Received => 'fine',
            default => '',
        };
    }

    #[AsTwigFunction('clock_now')]
    public function now(): \DateTimeImmutable
    {
        return $this->clock->now();
    }

    #[AsTwigFunction('shell')]
    public function shell(): Shell
    {
        return $this->shell;
    }
}
