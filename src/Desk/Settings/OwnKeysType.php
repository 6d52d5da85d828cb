<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Symfony\Component\Form\AbstractType;
use Symfony\Component\Form\Extension\Core\Type\TextType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\OptionsResolver\OptionsResolver;
use TallBarrel\Store\Person\KeyAct;

/** @extends AbstractType<OwnKeysEntry> */
final class OwnKeysType extends AbstractType
{
    public function buildForm(FormBuilderInterface $builder, array $options): void
    {
        foreach (KeyAct::cases() as $act) {
            $builder->add($act->name, TextType::class, [
                'label' => $act->words(),
                'property_path' => sprintf('keys[%s]', $act->name),
                'attr' => ['maxlength' => 1, 'size' => 2, 'autocomplete' => 'off'],
            ]);
        }
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setDefaults(['data_class' => OwnKeysEntry::class]);
    }
}
