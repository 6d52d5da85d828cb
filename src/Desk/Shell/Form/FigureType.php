<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell\Form;

use Brick\Math\BigDecimal;
use Symfony\Component\Form\AbstractType;
use Symfony\Component\Form\CallbackTransformer;
use Symfony\Component\Form\Exception\TransformationFailedException;
use Symfony\Component\Form\Extension\Core\Type\TextType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\OptionsResolver\OptionsResolver;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Numerals;
use TallBarrel\Store\Business\CurrentBusiness;

/**
 * A figure as the business writes them: a decimal, or null when left empty.
 *
 * @extends AbstractType<BigDecimal|null>
 */
final class FigureType extends AbstractType
{
    public const PRICE = 'price';
    public const QUANTITY = 'quantity';
    /** A percentage that may be below zero. */
    public const CHANGE = 'change';

    public function __construct(private readonly CurrentBusiness $business)
    {
    }

    public function buildForm(FormBuilderInterface $builder, array $options): void
    {
        /** @var self::PRICE|self::QUANTITY|self::CHANGE $kind */
        $kind = $options['kind'];
        $expects = is_string($options['expects']) ? $options['expects'] : '';
        $mark = $this->business->find()?->decimalMark() ?? Numerals::POINT;
        $builder->addViewTransformer(
            new CallbackTransformer(
                static fn (?BigDecimal $figure): string => null === $figure
                    ? ''
                    : str_replace('.', $mark, (string) $figure->strippedOfTrailingZeros()),
                static fn (?string $typed): ?BigDecimal => self::read(
                    (string) $typed,
                    $kind,
                    $expects,
                    Numerals::with($mark),
                ),
            ),
        );
    }

    private static function read(string $typed, string $kind, string $expects, Numerals $numerals): ?BigDecimal
    {
        if ('' === trim($typed)) {
            return null;
        }
        try {
            return match (true) {
                '' !== $expects => $numerals->decimal($typed, 6, $expects),
                self::QUANTITY === $kind => $numerals->quantity($typed),
                self::CHANGE === $kind => $numerals->decimal(
                    rtrim($typed, '% '),
                    2,
                    'a percentage such as +20 or −30',
                    true,
                ),
                default => $numerals->price($typed),
            };
        } catch (InvalidValue $invalid) {
            throw new TransformationFailedException($invalid->getMessage(), 0, $invalid, $invalid->getMessage());
        }
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setDefaults(
            ['kind' => self::PRICE, 'expects' => '', 'attr' => ['inputmode' => 'decimal', 'autocomplete' => 'off']],
        );
        $resolver->setAllowedTypes('expects', 'string');
        $resolver->setAllowedValues('kind', [self::PRICE, self::QUANTITY, self::CHANGE]);
    }

    public function getParent(): string
    {
        return TextType::class;
    }
}
