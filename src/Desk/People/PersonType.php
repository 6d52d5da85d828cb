<?php

declare(strict_types=1);

namespace TallBarrel\Desk\People;

use Symfony\Component\Form\AbstractType;
use Symfony\Component\Form\Extension\Core\Type\CheckboxType;
use Symfony\Component\Form\Extension\Core\Type\ChoiceType;
use Symfony\Component\Form\Extension\Core\Type\EnumType;
use Symfony\Component\Form\Extension\Core\Type\TextType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\OptionsResolver\OptionsResolver;
use Symfony\Component\Validator\Constraints\Length;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Person\Role;
use TallBarrel\Store\Site\Site;
use TallBarrel\Work\Keeping\PersonDetails;

/** @extends AbstractType<PersonDetails> */
final class PersonType extends AbstractType
{
    public function buildForm(FormBuilderInterface $builder, array $options): void
    {
        /** @var array{people: list<Person>, sites: list<Site>} $options */
        $builder
            ->add('name', TextType::class, [
                'label' => 'Name',
                'empty_data' => '',
                'constraints' => [new Length(max: 80)],
            ])
            ->add('email', TextType::class, [
                'label' => 'Email address',
                'help' => 'They sign in with it.',
                'empty_data' => '',
                'attr' => ['inputmode' => 'email'],
            ])
            ->add('role', EnumType::class, [
                'label' => 'Role',
                'class' => Role::class,
                'empty_data' => Role::Buyer->value,
                'choice_label' => static fn (Role $role): string => $role->value,
            ])
            ->add('site', ChoiceType::class, [
                'label' => 'Works at',
                'help' => 'What they see begins with it.',
                'placeholder' => 'all sites',
                'choices' => $options['sites'],
                'choice_value' => 'id',
                'choice_label' => 'name',
            ])
            ->add('sees', ChoiceType::class, [
                'label' => 'May see',
                'help' => 'None ticked: all of them.',
                'choices' => $options['sites'],
                'choice_value' => 'id',
                'choice_label' => 'name',
                'multiple' => true,
                'expanded' => true,
            ])
            ->add('approver', ChoiceType::class, [
                'label' => 'Asks for a yes',
                'placeholder' => 'whoever may give it',
                'choices' => $options['people'],
                'choice_value' => 'id',
                'choice_label' => 'name',
            ])
            ->add('handles_all', CheckboxType::class, [
                'label' => 'may change and send orders of others too',
                'property_path' => 'handlesAll',
            ]);
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setDefaults(['data_class' => PersonDetails::class]);
        $resolver->setRequired(['people', 'sites']);
    }
}
