<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Suppliers;

use Symfony\Component\Form\AbstractType;
use Symfony\Component\Form\Extension\Core\Type\CheckboxType;
use Symfony\Component\Form\Extension\Core\Type\DateType;
use Symfony\Component\Form\Extension\Core\Type\EnumType;
use Symfony\Component\Form\Extension\Core\Type\TextType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\OptionsResolver\OptionsResolver;
use Symfony\Component\Validator\Constraints\Length;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Sourcing\BreakBasis;
use TallBarrel\Core\Sourcing\BreakKind;
use TallBarrel\Desk\Shell\Form\FigureType;
use TallBarrel\Desk\Shell\Form\PairsType;
use TallBarrel\Desk\Shell\Form\WholeType;
use TallBarrel\Work\Sourcing\OfferDetails;

/** @extends AbstractType<OfferDetails> */
final class OfferType extends AbstractType
{
    public function buildForm(FormBuilderInterface $builder, array $options): void
    {
        /** @var array{pack: string|null, stock_unit: string, units: list<Unit>} $options */
        if (null === $options['pack']) {
            $builder
                ->add('item', TextType::class, [
                    'label' => 'Item',
                    'empty_data' => '',
                    'required' => true,
                    'attr' => ['list' => 'items', 'placeholder' => 'code', 'autofocus' => true],
                ])
                ->add('pack', TextType::class, [
                    'label' => 'They sell it by the',
                    'empty_data' => '',
                    'attr' => ['placeholder' => 'case, each'],
                    'constraints' => [new Length(max: 30)],
                ]);
        }
        $this->what($builder, $options);
        $this->ask($builder);
        $this->when($builder);
    }

    /**
     * @param FormBuilderInterface<OfferDetails|null>                          $builder
     * @param array{pack: string|null, stock_unit: string, units: list<Unit>} $options
     */
    private function what(FormBuilderInterface $builder, array $options): void
    {
        $builder
            ->add('supplier_code', TextType::class, [
                'label' => 'Their code',
                'property_path' => 'supplierCode',
                'empty_data' => '',
                'constraints' => [new Length(max: 40)],
            ])
            ->add('description', TextType::class, [
                'label' => 'What they call it',
                'empty_data' => '',
                'constraints' => [new Length(max: 160)],
            ])
            ->add('content', FigureType::class, [
                'label' => 'A '.($options['pack'] ?? 'pack').' holds',
                'expects' => 'what one pack holds, such as 12',
                'required' => true,
            ])
            ->add('content_unit', EnumType::class, [
                'class' => Unit::class,
                'label' => 'of',
                'property_path' => 'contentUnit',
                'choices' => $options['units'],
                'placeholder' => $options['stock_unit'],
                'choice_label' => static fn (Unit $unit): string => sprintf('%s (%s)', $unit->symbol(), $unit->value),
            ])
            ->add('outer_packs', TextType::class, [
                'label' => 'Larger packs',
                'property_path' => 'outerPacks',
                'empty_data' => '',
                'constraints' => [new Length(max: 120)],
                'help' => 'As name=packs: layer=8 pallet=6.',
            ])
            ->add('minimum', FigureType::class, [
                'label' => 'Minimum',
                'kind' => FigureType::QUANTITY,
            ])
            ->add('multiple', FigureType::class, [
                'label' => 'in steps of',
                'kind' => FigureType::QUANTITY,
            ])
            ->add('split', CheckboxType::class, [
                'label' => 'they open a pack and sell single ones',
            ]);
    }

    /** @param FormBuilderInterface<OfferDetails|null> $builder */
    private function ask(FormBuilderInterface $builder): void
    {
        $builder
            ->add('prices', PairsType::class, [
                'label' => 'Price',
                'left' => 'from packs',
                'right' => 'price of one',
                'between' => '=',
                'alone' => '1',
                'required' => true,
                'constraints' => [new Length(max: 200)],
                'help' => 'One price needs no “from”.',
            ])
            ->add('break_kind', EnumType::class, [
                'class' => BreakKind::class,
                'label' => 'A break lowers',
                'property_path' => 'breakKind',
                'empty_data' => BreakKind::AllUnits->value,
                'choice_label' => static fn (BreakKind $kind): string => BreakKind::Incremental === $kind
                    ? 'only what is beyond it'
                    : 'all that is bought',
            ])
            ->add('break_basis', EnumType::class, [
                'class' => BreakBasis::class,
                'label' => 'Breaks go by',
                'property_path' => 'breakBasis',
                'empty_data' => BreakBasis::Quantity->value,
                'choice_label' => static fn (BreakBasis $basis): string => BreakBasis::Value === $basis
                    ? 'value'
                    : 'packs',
            ])
            ->add('prices_from', DateType::class, [
                'label' => 'A new price from',
                'property_path' => 'pricesFrom',
                'widget' => 'single_text',
                'input' => 'datetime_immutable',
                'invalid_message' => 'That is not a day; expected one such as 2026-11-30.',
            ])
            ->add('discounts', TextType::class, [
                'label' => 'Less',
                'empty_data' => '',
                'constraints' => [new Length(max: 40)],
                'help' => 'Percent, one after the other: 10 + 5.',
            ])
            ->add('rise_percent', FigureType::class, [
                'label' => 'Announced rise',
                'property_path' => 'risePercent',
                'unit' => '%',
            ])
            ->add('rise_on', DateType::class, [
                'label' => 'from',
                'property_path' => 'riseOn',
                'widget' => 'single_text',
                'input' => 'datetime_immutable',
                'invalid_message' => 'That is not a day; expected one such as 2026-11-30.',
            ]);
    }

    /** @param FormBuilderInterface<OfferDetails|null> $builder */
    private function when(FormBuilderInterface $builder): void
    {
        $builder
            ->add('lead_days', WholeType::class, [
                'label' => 'Delivers in',
                'unit' => 'days',
                'property_path' => 'leadDays',
                'most' => 365,
            ])
            ->add('rank', WholeType::class, [
                'label' => 'Choice, 1 is bought from first',
                'of' => 'place',
                'most' => 99,
            ])
            ->add('valid_from', DateType::class, [
                'label' => 'Holds from',
                'property_path' => 'validFrom',
                'widget' => 'single_text',
                'input' => 'datetime_immutable',
                'invalid_message' => 'That is not a day; expected one such as 2026-11-30.',
            ])
            ->add('valid_until', DateType::class, [
                'label' => 'until',
                'property_path' => 'validUntil',
                'widget' => 'single_text',
                'input' => 'datetime_immutable',
                'invalid_message' => 'That is not a day; expected one such as 2026-11-30.',
            ])
            ->add('manufacturer', TextType::class, [
                'label' => 'Made by',
                'help' => 'If that is not who sells it.',
                'empty_data' => '',
                'constraints' => [new Length(max: 120)],
            ])
            ->add('packing', TextType::class, [
                'label' => 'How it is to be packed',
                'help' => 'Stands on every order.',
                'empty_data' => '',
                'constraints' => [new Length(max: 200)],
            ])
            ->add('origin', TextType::class, [
                'label' => 'Made in (IE)',
                'empty_data' => '',
                'attr' => ['maxlength' => 2],
            ])
            ->add('tariff_number', TextType::class, [
                'label' => 'Customs tariff number',
                'property_path' => 'tariffNumber',
                'empty_data' => '',
                'constraints' => [new Length(max: 14)],
            ])
            ->add('duty_percent', FigureType::class, [
                'label' => 'Duty',
                'property_path' => 'dutyPercent',
                'unit' => '%',
            ])
            ->add('inspected', CheckboxType::class, [
                'label' => 'is inspected on arrival',
            ])
            ->add('consigned', CheckboxType::class, [
                'label' => 'stays theirs in our stock until it is used (consignment)',
            ])
            ->add('consigned_days', WholeType::class, [
                'label' => 'Ours anyway after',
                'unit' => 'days, or never',
                'property_path' => 'consignedDays',
                'required' => false,
                'most' => 3650,
            ])
            ->add('blocked', CheckboxType::class, [
                'label' => 'not to be bought for now',
            ]);
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setDefaults([
            'data_class' => OfferDetails::class,
            // Null for a new offer.
            'pack' => null,
            'stock_unit' => 'stock units',
            'units' => Unit::cases(),
        ]);
    }
}
