<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Symfony\Component\Form\AbstractType;
use Symfony\Component\Form\Extension\Core\Type\EnumType;
use Symfony\Component\Form\Extension\Core\Type\HiddenType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\OptionsResolver\OptionsResolver;
use TallBarrel\Core\Ordering\BudgetBasis;
use TallBarrel\Desk\Shell\Form\FigureType;

/** @extends AbstractType<BudgetEntry> */
final class BudgetType extends AbstractType
{
    public function buildForm(FormBuilderInterface $builder, array $options): void
    {
        $entry = $options['data'] ?? null;
        $builder
            ->add('usual', FigureType::class, [
                'label' => 'A usual month',
                'kind' => FigureType::PRICE,
                'expects' => 'an amount, or nothing for no budget',
            ])
            ->add('basis', EnumType::class, [
                'label' => 'Money counts in the month it is',
                'class' => BudgetBasis::class,
                'empty_data' => $entry instanceof BudgetEntry ? $entry->basis->value : '',
                'choice_label' => static fn (BudgetBasis $basis): string => match ($basis) {
                    BudgetBasis::Ordering => 'ordered',
                    BudgetBasis::Paying => 'paid, by the supplier’s terms',
                },
            ])
            ->add('was', HiddenType::class);
        if (!$entry instanceof BudgetEntry) {
            return;
        }
        foreach (array_keys($entry->months) as $month) {
            $builder->add($month, FigureType::class, [
                'label' => (new \DateTimeImmutable($month))->format('F Y'),
                'kind' => FigureType::PRICE,
                'expects' => 'an amount, or nothing for the usual one',
                'property_path' => sprintf('months[%s]', $month),
            ]);
        }
        foreach ($entry->categoryFields() as $field => $category) {
            $builder->add($field, FigureType::class, [
                'label' => $category,
                'kind' => FigureType::PRICE,
                'expects' => 'an amount, or nothing for no limit of its own',
                'property_path' => sprintf('limits[%s]', $field),
            ]);
        }
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setDefaults(['data_class' => BudgetEntry::class]);
    }
}
