<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Symfony\Component\Form\AbstractType;
use Symfony\Component\Form\Extension\Core\Type\CheckboxType;
use Symfony\Component\Form\Extension\Core\Type\ChoiceType;
use Symfony\Component\Form\Extension\Core\Type\CountryType;
use Symfony\Component\Form\Extension\Core\Type\TextType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\OptionsResolver\OptionsResolver;
use Symfony\Component\Validator\Constraints\Length;
use Symfony\Component\Validator\Constraints\NotNull;
use TallBarrel\Desk\Shell\Form\FigureType;
use TallBarrel\Work\Keeping\BusinessDetails;

/** @extends AbstractType<BusinessDetails> */
final class BusinessType extends AbstractType
{
    public function buildForm(FormBuilderInterface $builder, array $options): void
    {
        $builder
            ->add('name', TextType::class, [
                'label' => 'Name',
                'empty_data' => '',
                'constraints' => [new Length(max: 120)],
            ])
            ->add('address', TextType::class, [
                'label' => 'Address',
                'help' => 'As it stands at the head of orders.',
                'empty_data' => '',
                'constraints' => [new Length(max: 200)],
            ])
            ->add('country', CountryType::class, ['label' => 'Country', 'placeholder' => '', 'empty_data' => ''])
            ->add('tax_number', TextType::class, [
                'label' => 'Tax number',
                'property_path' => 'taxNumber',
                'empty_data' => '',
                'constraints' => [new Length(max: 40)],
            ])
            ->add('mark', ChoiceType::class, [
                'label' => 'Numbers are written',
                'choices' => ['1,234.50' => '.', '1.234,50' => ','],
                'empty_data' => '.',
            ])
            ->add('order_cost', FigureType::class, [
                'label' => 'Placing and receiving an order line costs',
                'property_path' => 'orderCost',
                'help' => 'The time it takes, in money. The higher, the fewer and larger orders are proposed.',
                'constraints' => [new NotNull(message: 'Say what it costs; 0 for nothing.')],
            ])
            ->add('holding', FigureType::class, [
                'label' => 'Keeping stock costs',
                'unit' => '% of its value a year',
                'help' => 'Money tied up, room, spoilage. The higher, the less is kept.',
                'constraints' => [new NotNull(message: 'Say what it costs; 0 for nothing.')],
            ])
            ->add('foot', TextType::class, [
                'label' => 'At the foot of every paper',
                'empty_data' => '',
                'constraints' => [new Length(max: 300)],
            ])
            ->add('drop_logo', CheckboxType::class, ['label' => 'without the logo', 'property_path' => 'dropLogo']);
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setDefaults(['data_class' => BusinessDetails::class]);
    }
}
