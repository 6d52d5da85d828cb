<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Items;

use Symfony\Component\Form\AbstractType;
use Symfony\Component\Form\Extension\Core\Type\CheckboxType;
use Symfony\Component\Form\Extension\Core\Type\ChoiceType;
use Symfony\Component\Form\Extension\Core\Type\EnumType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\OptionsResolver\OptionsResolver;
use TallBarrel\Core\Replenish\PolicyKind;
use TallBarrel\Core\Replenish\ServiceTarget;
use TallBarrel\Desk\Shell\Form\FigureType;
use TallBarrel\Store\Site\Site;

/** @extends AbstractType<ItemPolicyEntry> */
final class ItemPolicyType extends AbstractType
{
    public function buildForm(FormBuilderInterface $builder, array $options): void
    {
        $site = $options['site'];
        $builder
            ->add('where', ChoiceType::class, [
                'label' => 'Holds',
                'placeholder' => 'everywhere',
                'choices' => $site instanceof Site ? [$site] : [],
                'choice_value' => 'id',
                'choice_label' => static fn (Site $site): string => 'at '.$site->name().' only',
            ])
            ->add('kind', EnumType::class, [
                'class' => PolicyKind::class,
                'label' => 'Policy',
                'placeholder' => 'that of what is wider',
                'choice_label' => static fn (PolicyKind $kind): string => $kind->words(),
            ])
            ->add('target', ChoiceType::class, [
                'label' => 'Service is',
                'empty_data' => ServiceTarget::CYCLE,
                'choices' => ['deliveries in time' => ServiceTarget::CYCLE, 'demand served' => ServiceTarget::FILL],
            ])
            ->add('service', FigureType::class, ['label' => 'aimed at', 'unit' => '%'])
            ->add('amount', FigureType::class, ['label' => 'Figure', 'help' => 'Maximum, par level, days or value.'])
            ->add('minimum', FigureType::class, ['label' => 'Minimum'])
            ->add('beyond', CheckboxType::class, ['label' => 'may go beyond its level for a lower price']);
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setDefaults(['data_class' => ItemPolicyEntry::class, 'site' => null]);
    }
}
