<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Items;

use Symfony\Component\Form\AbstractType;
use Symfony\Component\Form\Extension\Core\Type\CheckboxType;
use Symfony\Component\Form\Extension\Core\Type\TextType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\OptionsResolver\OptionsResolver;
use TallBarrel\Desk\Shell\Form\FigureType;
use TallBarrel\Desk\Shell\Form\WholeType;

/** @extends AbstractType<ItemFactsEntry> */
final class ItemFactsType extends AbstractType
{
    public function buildForm(FormBuilderInterface $builder, array $options): void
    {
        $builder
            ->add('staple', CheckboxType::class, ['label' => 'a staple: never to be without'])
            ->add('shelf', WholeType::class, ['label' => 'Keeps', 'unit' => 'days', 'most' => 9999])
            ->add('like', TextType::class, [
                'label' => 'Sells like',
                'empty_data' => '',
                'attr' => ['placeholder' => 'item code'],
            ])
            ->add('factor', FigureType::class, ['label' => 'times', 'attr' => ['placeholder' => '1']]);
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setDefaults(['data_class' => ItemFactsEntry::class]);
    }
}
