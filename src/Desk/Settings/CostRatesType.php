<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Symfony\Component\Form\AbstractType;
use Symfony\Component\Form\Extension\Core\Type\CheckboxType;
use Symfony\Component\Form\Extension\Core\Type\EnumType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\OptionsResolver\OptionsResolver;
use TallBarrel\Core\Settling\Valuing;
use TallBarrel\Desk\Shell\Form\FigureType;

/** @extends AbstractType<CostRatesEntry> */
final class CostRatesType extends AbstractType
{
    public function buildForm(FormBuilderInterface $builder, array $options): void
    {
        $builder
            ->add('money', FigureType::class, [
                'label' => 'Money costs',
                'unit' => '% a year',
                'help' => 'What you pay for borrowed money, or could earn with it.',
            ])
            ->add('exchange', FigureType::class, [
                'label' => 'The bank takes',
                'unit' => '%',
                'help' => 'Of a payment in a foreign currency.',
            ])
            ->add('expects', CheckboxType::class, [
                'label' => 'Goods bear freight, duty and other charges from the day they come, as far as they are '
                    .'expected; their invoice takes the place of it',
                'required' => false,
            ])
            ->add('handlingPercent', FigureType::class, [
                'label' => 'Taking goods in costs',
                'unit' => '% of their value',
                'help' => 'Put on what comes, as a part of its cost.',
            ])
            ->add('handlingAmount', FigureType::class, [
                'label' => 'and for each receipt',
                'unit' => $options['currency'],
            ])
            ->add('valuing', EnumType::class, [
                'class' => Valuing::class,
                'label' => 'The stock is worth',
                'choice_label' => static fn (Valuing $one): string => $one->words(),
                'help' => 'Chosen once: it stays as it is when the books of a month are closed.',
            ]);
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setDefaults(['data_class' => CostRatesEntry::class, 'currency' => '']);
    }
}
