<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Symfony\Component\Form\AbstractType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\OptionsResolver\OptionsResolver;
use TallBarrel\Desk\Shell\Form\FigureType;

/** @extends AbstractType<BudgetEntry> */
final class BudgetType extends AbstractType
{
    public function buildForm(FormBuilderInterface $builder, array $options): void
    {
        $builder->add('usual', FigureType::class, [
            'label' => 'A usual month',
            'kind' => FigureType::PRICE,
            'expects' => 'an amount, or nothing for no budget',
        ]);
        $entry = $options['data'] ?? null;
        foreach ($entry instanceof BudgetEntry ? array_keys($entry->months) : [] as $month) {
            $builder->add($month, FigureType::class, [
                'label' => (new \DateTimeImmutable($month))->format('F Y'),
                'kind' => FigureType::PRICE,
                'expects' => 'an amount, or nothing for the usual one',
                'property_path' => sprintf('months[%s]', $month),
            ]);
        }
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setDefaults(['data_class' => BudgetEntry::class]);
    }
}
