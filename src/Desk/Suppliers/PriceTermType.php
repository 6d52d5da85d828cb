<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Suppliers;

use Symfony\Component\Form\AbstractType;
use Symfony\Component\Form\Extension\Core\Type\ChoiceType;
use Symfony\Component\Form\Extension\Core\Type\DateType;
use Symfony\Component\Form\Extension\Core\Type\EnumType;
use Symfony\Component\Form\Extension\Core\Type\TextType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\OptionsResolver\OptionsResolver;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;
use Symfony\Component\Validator\Constraints\Length;
use TallBarrel\Core\Sourcing\AgreedKind;
use TallBarrel\Core\Sourcing\BreakBasis;
use TallBarrel\Desk\Shell\Form\PairsType;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Sourcing\PriceTermDetails;

/** @extends AbstractType<PriceTermDetails> */
final class PriceTermType extends AbstractType
{
    public function __construct(private readonly UrlGeneratorInterface $urls)
    {
    }

    public function buildForm(FormBuilderInterface $builder, array $options): void
    {
        /** @var list<Supplier> $suppliers */
        $suppliers = $options['suppliers'];
        $builder
            ->add('name', TextType::class, [
                'label' => 'What it is called',
                'help' => 'Stands beside each price it decides.',
                'empty_data' => '',
                'constraints' => [new Length(max: 80)],
            ])
            ->add('supplier', ChoiceType::class, [
                'label' => 'Agreed with',
                'placeholder' => 'everyone, or a group',
                'choices' => $suppliers,
                'choice_value' => 'id',
                'choice_label' => 'name',
            ])
            ->add('supplier_group', TextType::class, [
                'label' => 'or with the group',
                'property_path' => 'supplierGroup',
                'empty_data' => '',
                'constraints' => [new Length(max: 40)],
                'attr' => ['list' => 'supplier-groups', 'autocomplete' => 'off'],
            ])
            ->add('item', TextType::class, [
                'label' => 'On the item',
                'help' => 'Empty for everything, or a group.',
                'empty_data' => '',
                'constraints' => [new Length(max: 210)],
                'attr' => [
                    'list' => 'item-codes',
                    'autocomplete' => 'off',
                    'hx-get' => $this->urls->generate('item_names'),
                    'hx-trigger' => 'input changed delay:150ms',
                    'hx-target' => '#item-codes',
                ],
            ])
            ->add('item_group', TextType::class, [
                'label' => 'or on the group',
                'property_path' => 'itemGroup',
                'empty_data' => '',
                'constraints' => [new Length(max: 40)],
                'attr' => ['list' => 'item-groups', 'autocomplete' => 'off'],
            ])
            ->add('kind', EnumType::class, [
                'label' => 'They give',
                'class' => AgreedKind::class,
                'empty_data' => AgreedKind::Discount->value,
                'choice_label' => static fn (AgreedKind $kind): string => AgreedKind::Price === $kind
                    ? 'a price for one stock unit'
                    : 'a discount, in percent',
            ])
            ->add('basis', EnumType::class, [
                'label' => 'by',
                'class' => BreakBasis::class,
                'empty_data' => BreakBasis::Quantity->value,
                'choice_label' => static fn (BreakBasis $basis): string => BreakBasis::Value === $basis
                    ? 'value of the line'
                    : 'stock units of the line',
            ])
            ->add('steps', PairsType::class, [
                'label' => 'What was agreed',
                'left' => 'from',
                'right' => 'percent or price',
                'between' => '=',
                'alone' => '0',
                'required' => true,
                'constraints' => [new Length(max: 200)],
                'help' => 'One step needs no “from”.',
            ])
            ->add('currency', TextType::class, [
                'label' => 'Currency',
                'help' => 'Of a price, or of steps by value; empty for theirs or ours.',
                'empty_data' => '',
                'attr' => ['maxlength' => 3],
            ]);
        $days = ['first_day' => ['Holds from', 'firstDay'], 'last_day' => ['to', 'lastDay']];
        foreach ($days as $name => [$label, $path]) {
            $builder->add($name, DateType::class, [
                'label' => $label,
                'property_path' => $path,
                'widget' => 'single_text',
                'input' => 'datetime_immutable',
                'invalid_message' => 'That is not a day; expected one such as 2026-11-30.',
            ]);
        }
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setDefaults(['data_class' => PriceTermDetails::class, 'suppliers' => []]);
        $resolver->setAllowedTypes('suppliers', 'array');
    }
}
