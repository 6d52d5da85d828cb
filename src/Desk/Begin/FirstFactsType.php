<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Begin;

use Symfony\Component\Form\AbstractType;
use Symfony\Component\Form\Extension\Core\Type\ChoiceType;
use Symfony\Component\Form\Extension\Core\Type\CountryType;
use Symfony\Component\Form\Extension\Core\Type\CurrencyType;
use Symfony\Component\Form\Extension\Core\Type\PasswordType;
use Symfony\Component\Form\Extension\Core\Type\TextType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\OptionsResolver\OptionsResolver;
use Symfony\Component\Validator\Constraints\Length;
use TallBarrel\Work\Keeping\ChoosePassword;
use TallBarrel\Work\Keeping\FirstFacts;

/** @extends AbstractType<FirstFacts> */
final class FirstFactsType extends AbstractType
{
    public function buildForm(FormBuilderInterface $builder, array $options): void
    {
        $builder
            ->add('name', TextType::class, [
                'label' => 'What the business is called',
                'empty_data' => '',
                'constraints' => [new Length(max: 120)],
                'attr' => ['autocomplete' => 'organization', 'autofocus' => true],
            ])
            ->add('country', CountryType::class, [
                'label' => 'Country',
                'placeholder' => 'choose',
                'empty_data' => '',
            ])
            ->add('currency', CurrencyType::class, [
                'label' => 'Home currency',
                'help' => 'Stock and budgets are kept in it. It cannot change later.',
                'empty_data' => '',
            ])
            ->add('mark', ChoiceType::class, [
                'label' => 'Numbers are written',
                'choices' => ['1,234.50' => '.', '1.234,50' => ','],
                'empty_data' => '.',
            ])
            ->add('site', TextType::class, [
                'label' => 'The first place that holds stock',
                'help' => 'A depot or a shop; more can follow.',
                'empty_data' => '',
                'constraints' => [new Length(max: 80)],
            ])
            ->add('owner', TextType::class, [
                'label' => 'Your name',
                'empty_data' => '',
                'constraints' => [new Length(max: 80)],
                'attr' => ['autocomplete' => 'name'],
            ])
            ->add('email', TextType::class, [
                'label' => 'Your email address',
                'help' => 'You sign in with it.',
                'empty_data' => '',
                'attr' => ['inputmode' => 'email', 'autocomplete' => 'username'],
            ])
            ->add('password', PasswordType::class, [
                'label' => 'A password',
                'help' => sprintf('%d characters or more; a few words do well.', ChoosePassword::LEAST),
                'empty_data' => '',
                'always_empty' => false,
                'attr' => ['autocomplete' => 'new-password'],
            ]);
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setDefaults(['data_class' => FirstFacts::class]);
    }
}
