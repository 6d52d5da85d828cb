<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Items;

use Symfony\Component\Form\AbstractType;
use Symfony\Component\Form\Extension\Core\Type\CheckboxType;
use Symfony\Component\Form\Extension\Core\Type\ChoiceType;
use Symfony\Component\Form\Extension\Core\Type\EnumType;
use Symfony\Component\Form\Extension\Core\Type\TextareaType;
use Symfony\Component\Form\Extension\Core\Type\TextType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\OptionsResolver\OptionsResolver;
use Symfony\Component\Validator\Constraints\Length;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Receiving\InspectionLevel;
use TallBarrel\Core\Receiving\InspectionRule;
use TallBarrel\Core\Receiving\LotDetails;
use TallBarrel\Core\Receiving\SamplingPlan;
use TallBarrel\Desk\Shell\Form\FigureType;
use TallBarrel\Desk\Shell\Form\WholeType;
use TallBarrel\Desk\Shell\TaxNames;
use TallBarrel\Work\Keeping\ItemDetails;

/** @extends AbstractType<ItemDetails> */
final class ItemType extends AbstractType
{
    public function __construct(private readonly TaxNames $rates)
    {
    }

    /** Those that most goods are counted in stand first. */
    private const USUAL = [
        Unit::Each, Unit::Set, Unit::Pair, Unit::Kilogram, Unit::Gram, Unit::Litre, Unit::Metre, Unit::SquareMetre,
    ];

    public function buildForm(FormBuilderInterface $builder, array $options): void
    {
        $builder
            ->add('code', TextType::class, [
                'label' => 'Item code',
                'empty_data' => '',
                'attr' => ['maxlength' => 40, 'autocomplete' => 'off'],
            ])
            ->add('name', TextType::class, [
                'label' => 'What it is',
                'empty_data' => '',
                'constraints' => [new Length(max: 160)],
            ])
            ->add('further_names', TextType::class, [
                'label' => 'Further names to find it by',
                'property_path' => 'furtherNames',
                'help' => 'With commas between.',
                'empty_data' => '',
                'constraints' => [new Length(max: 300)],
            ])
            ->add('category', TextType::class, [
                'label' => 'Category',
                'empty_data' => '',
                'constraints' => [new Length(max: 60)],
                'attr' => ['list' => 'categories', 'autocomplete' => 'off'],
            ])
            ->add('unit', EnumType::class, [
                'label' => 'Stock unit',
                'class' => Unit::class,
                'empty_data' => Unit::Each->value,
                'preferred_choices' => self::USUAL,
                'choice_label' => static fn (Unit $unit): string => $unit->value === $unit->symbol()
                    ? $unit->value
                    : $unit->symbol().', '.$unit->value,
            ])
            ->add('sort', ChoiceType::class, [
                'label' => 'It is',
                'empty_data' => ItemDetails::SOLD,
                'choices' => [
                    'sold' => ItemDetails::SOLD,
                    'used, not sold' => ItemDetails::USED,
                    'a service or expense, never stocked' => ItemDetails::SERVICE,
                ],
            ])
            ->add('gtin', TextType::class, [
                'label' => 'GTIN of one unit',
                'empty_data' => '',
                'attr' => ['inputmode' => 'numeric', 'autocomplete' => 'off'],
            ])
            ->add('sales_price', FigureType::class, ['label' => 'Sales price', 'property_path' => 'salesPrice'])
            ->add('standard_cost', FigureType::class, [
                'label' => 'Standard cost',
                'property_path' => 'standardCost',
                'help' => 'Changes only here.',
            ])
            ->add('weight', FigureType::class, ['label' => 'Weight of one', 'unit' => 'kg'])
            ->add('volume', FigureType::class, ['label' => 'Volume of one', 'unit' => 'litres'])
            ->add('shelf', WholeType::class, [
                'label' => 'Keeps',
                'property_path' => 'shelfDays',
                'unit' => 'days',
                'most' => 9999,
            ])
            ->add('lots', CheckboxType::class, ['label' => 'kept by lot'])
            ->add('lot_details', EnumType::class, [
                'label' => 'Asked of a lot',
                'property_path' => 'lotDetails',
                'class' => LotDetails::class,
                'empty_data' => LotDetails::Never->value,
                'choice_label' => static fn (LotDetails $details): string => $details->words(),
            ])
            ->add('serials', CheckboxType::class, ['label' => 'each piece has a serial number'])
            ->add('measured', CheckboxType::class, ['label' => 'its temperature is measured when it comes'])
            ->add('inspection', EnumType::class, [
                'label' => 'When it comes in',
                'class' => InspectionRule::class,
                'empty_data' => InspectionRule::Never->value,
                'choice_label' => static fn (InspectionRule $rule): string => $rule->words(),
            ])
            ->add('inspection_level', EnumType::class, [
                'label' => 'How many, of a sample',
                'property_path' => 'inspectionLevel',
                'class' => InspectionLevel::class,
                'empty_data' => InspectionLevel::Two->value,
                'choice_label' => static fn (InspectionLevel $level): string => $level->words(),
            ])
            ->add('look_at', TextareaType::class, [
                'label' => 'What is looked at, one a line',
                'property_path' => 'lookAt',
                'empty_data' => '',
                'attr' => ['rows' => 2, 'maxlength' => 500],
            ])
            ->add('quality_limit', ChoiceType::class, [
                'label' => 'May be bad, of a sample',
                'property_path' => 'qualityLimit',
                'empty_data' => '1.5',
                'placeholder' => false,
                'choices' => array_combine(
                    array_map(static fn (string $limit): string => $limit.' %', SamplingPlan::LIMITS),
                    SamplingPlan::LIMITS,
                ),
            ])
            ->add('staple', CheckboxType::class, ['label' => 'a staple: never to be without'])
            ->add('customs', TextType::class, [
                'label' => 'Customs number',
                'property_path' => 'customsNumber',
                'empty_data' => '',
            ])
            ->add('origin', TextType::class, [
                'label' => 'Origin',
                'help' => 'Two letters, such as IE.',
                'empty_data' => '',
                'attr' => ['maxlength' => 2],
            ])
            ->add('price_group', TextType::class, [
                'label' => 'Price group',
                'property_path' => 'priceGroup',
                'empty_data' => '',
                'constraints' => [new Length(max: 40)],
                'attr' => ['list' => 'item-groups', 'autocomplete' => 'off'],
            ])
            ->add('tax_name', ChoiceType::class, [
                'label' => 'Tax',
                'property_path' => 'taxName',
                'empty_data' => '',
                'placeholder' => false,
                'choices' => ['as the supplier charges' => ''] + $this->rates->choices(),
            ])
            ->add('caution', TextType::class, [
                'label' => 'Caution, shown when ordering',
                'empty_data' => '',
                'constraints' => [new Length(max: 300)],
            ])
            ->add('notes', TextareaType::class, [
                'label' => 'Notes for ourselves',
                'empty_data' => '',
                'constraints' => [new Length(max: 2000)],
                'attr' => ['rows' => 2],
            ])
            ->add('drop_picture', CheckboxType::class, [
                'label' => 'without the picture',
                'property_path' => 'dropPicture',
            ]);
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setDefaults(['data_class' => ItemDetails::class]);
    }
}
