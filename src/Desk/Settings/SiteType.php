<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Symfony\Component\Form\AbstractType;
use Symfony\Component\Form\Extension\Core\Type\ChoiceType;
use Symfony\Component\Form\Extension\Core\Type\EnumType;
use Symfony\Component\Form\Extension\Core\Type\TextType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\OptionsResolver\OptionsResolver;
use Symfony\Component\Validator\Constraints\Length;
use TallBarrel\Store\Site\BinKind;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Site\SiteKind;
use TallBarrel\Work\Keeping\SiteDetails;

/** @extends AbstractType<SiteDetails> */
final class SiteType extends AbstractType
{
    public function buildForm(FormBuilderInterface $builder, array $options): void
    {
        /** @var array{site: Site|null, sites: list<Site>} $options */
        if (null === $options['site']) {
            $builder->add('code', TextType::class, [
                'label' => 'Code',
                'help' => 'Short, such as SHOP; files name the site by it.',
                'empty_data' => '',
                'attr' => ['maxlength' => 20, 'autocomplete' => 'off'],
            ]);
        }
        $builder
            ->add('name', TextType::class, [
                'label' => 'Name',
                'empty_data' => '',
                'constraints' => [new Length(max: 80)],
            ])
            ->add('kind', EnumType::class, [
                'label' => 'It is a',
                'class' => SiteKind::class,
                'empty_data' => SiteKind::Depot->value,
                'choice_label' => static fn (SiteKind $kind): string => $kind->value,
            ])
            ->add('address', TextType::class, [
                'label' => 'Address',
                'help' => 'As it stands on orders that are delivered here.',
                'empty_data' => '',
                'constraints' => [new Length(max: 200)],
            ])
            ->add('hours', TextType::class, [
                'label' => 'Takes deliveries',
                'help' => 'Mon–Fri 8 to 16, rear gate.',
                'empty_data' => '',
                'constraints' => [new Length(max: 80)],
            ])
            ->add('supplied_by', ChoiceType::class, [
                'label' => 'Supplied by',
                'property_path' => 'suppliedBy',
                'help' => 'Whose surplus comes first when something is short here.',
                'placeholder' => 'nobody in particular',
                'choices' => array_values(
                    array_filter($options['sites'], static fn (Site $one): bool => $one !== $options['site']),
                ),
                'choice_value' => 'id',
                'choice_label' => 'name',
            ])
            ->add('bins', TextType::class, [
                'label' => 'Add bins',
                'help' => 'Codes with blanks between: A-01 A-02 B-01.',
                'empty_data' => '',
                'attr' => ['autocomplete' => 'off'],
            ])
            ->add('bin_kind', EnumType::class, [
                'label' => 'They are',
                'property_path' => 'binKind',
                'class' => BinKind::class,
                'empty_data' => BinKind::Shelf->value,
                'choice_label' => static fn (BinKind $kind): string => $kind->words(),
            ]);
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setDefaults(['data_class' => SiteDetails::class, 'site' => null]);
        $resolver->setRequired(['sites']);
    }
}
