<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Items;

use Symfony\Component\Form\AbstractType;
use Symfony\Component\Form\Extension\Core\Type\DateType;
use Symfony\Component\Form\Extension\Core\Type\TextType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\OptionsResolver\OptionsResolver;
use Symfony\Component\Validator\Constraints\Length;
use TallBarrel\Desk\Shell\Form\FigureType;

/** @extends AbstractType<AdjustmentEntry> */
final class AdjustmentType extends AbstractType
{
    public function buildForm(FormBuilderInterface $builder, array $options): void
    {
        $builder
            ->add('percent', FigureType::class, [
                'kind' => FigureType::CHANGE,
                'label' => 'Forecast more or less by',
                'unit' => '%',
                'attr' => ['placeholder' => '+20', 'required' => true],
            ])
            ->add('until', DateType::class, [
                'label' => 'until',
                'widget' => 'single_text',
                'input' => 'datetime_immutable',
                'invalid_message' => 'That is not a day; expected one such as 2026-11-30.',
                'attr' => ['required' => true],
            ])
            ->add('reason', TextType::class, [
                'label' => 'because',
                'empty_data' => '',
                'constraints' => [new Length(max: 200)],
                'attr' => ['required' => true],
            ]);
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setDefaults(['data_class' => AdjustmentEntry::class]);
    }
}
