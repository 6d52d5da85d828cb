<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Symfony\Component\Form\AbstractType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\OptionsResolver\OptionsResolver;
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
            ]);
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setDefaults(['data_class' => CostRatesEntry::class]);
    }
}
