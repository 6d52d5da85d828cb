<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Symfony\Component\Form\AbstractType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\OptionsResolver\OptionsResolver;
use TallBarrel\Core\Replenish\Way;
use TallBarrel\Desk\Shell\Form\FigureType;
use TallBarrel\Desk\Shell\Form\WholeType;

/** @extends AbstractType<WaysEntry> */
final class WaysType extends AbstractType
{
    public function buildForm(FormBuilderInterface $builder, array $options): void
    {
        $entry = $options['data'] ?? null;
        foreach ($entry instanceof WaysEntry ? $entry->pairs : [] as $pair => [$from, $to]) {
            $builder
                ->add('days-'.$pair, WholeType::class, [
                    'label' => sprintf('Days from %s to %s', $from->name(), $to->name()),
                    'of' => 'days',
                    'most' => Way::LONGEST,
                    'property_path' => sprintf('days[%s]', $pair),
                ])
                ->add('cost-'.$pair, FigureType::class, [
                    'label' => sprintf('Cost from %s to %s', $from->name(), $to->name()),
                    'kind' => FigureType::PRICE,
                    'property_path' => sprintf('costs[%s]', $pair),
                ]);
        }
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setDefaults(['data_class' => WaysEntry::class]);
    }
}
