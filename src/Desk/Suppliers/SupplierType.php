<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Suppliers;

use Symfony\Component\Form\AbstractType;
use Symfony\Component\Form\Extension\Core\Type\CheckboxType;
use Symfony\Component\Form\Extension\Core\Type\ChoiceType;
use Symfony\Component\Form\Extension\Core\Type\EnumType;
use Symfony\Component\Form\Extension\Core\Type\TextareaType;
use Symfony\Component\Form\Extension\Core\Type\TextType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\OptionsResolver\OptionsResolver;
use Symfony\Component\Validator\Constraints\Length;
use Symfony\Component\Validator\Constraints\NotBlank;
use TallBarrel\Core\Money\TaxCategory;
use TallBarrel\Core\Ordering\CsvLayout;
use TallBarrel\Core\Ordering\PaperLanguage;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Desk\Shell\Form\FigureType;
use TallBarrel\Desk\Shell\Form\PairsType;
use TallBarrel\Desk\Shell\Form\WholeType;
use TallBarrel\Desk\Shell\TaxNames;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Keeping\SupplierDetails;

/** @extends AbstractType<SupplierDetails> */
final class SupplierType extends AbstractType
{
    public function __construct(private readonly TaxNames $rates)
    {
    }

    public function buildForm(FormBuilderInterface $builder, array $options): void
    {
        /** @var array{suppliers: list<Supplier>, people: list<Person>} $options */
        $this->who($builder);
        $this->trade($builder, $options);
        $this->ordering($builder, $options);
        $this->others($builder);
    }

    /**
     * Who it is, and what to know of it.
     *
     * @param FormBuilderInterface<SupplierDetails|null> $builder
     */
    private function who(FormBuilderInterface $builder): void
    {
        $builder
            ->add('name', TextType::class, [
                'label' => 'Name',
                'empty_data' => '',
                'constraints' => [new NotBlank(message: 'A supplier needs a name.'), new Length(max: 120)],
            ])
            ->add('contact', TextType::class, [
                'label' => 'Orders go to',
                'property_path' => 'orders.name',
                'empty_data' => '',
                'constraints' => [new Length(max: 80)],
            ])
            ->add('email', TextType::class, [
                'label' => 'Email',
                'property_path' => 'orders.email',
                'empty_data' => '',
                'constraints' => [new Length(max: 180)],
                'attr' => ['inputmode' => 'email'],
            ])
            ->add('phone', TextType::class, [
                'label' => 'Phone',
                'property_path' => 'orders.phone',
                'empty_data' => '',
                'constraints' => [new Length(max: 40)],
            ])
            ->add('street', TextType::class, [
                'label' => 'Street',
                'property_path' => 'at.street',
                'empty_data' => '',
                'constraints' => [new Length(max: 120)],
            ])
            ->add('postcode', TextType::class, [
                'label' => 'Postcode',
                'property_path' => 'at.postcode',
                'empty_data' => '',
                'constraints' => [new Length(max: 20)],
            ])
            ->add('city', TextType::class, [
                'label' => 'Town',
                'property_path' => 'at.city',
                'empty_data' => '',
                'constraints' => [new Length(max: 80)],
            ])
            ->add('country', TextType::class, [
                'label' => 'Country',
                'property_path' => 'at.country',
                'empty_data' => '',
                'attr' => ['maxlength' => 2],
            ])
            ->add('caution', TextType::class, [
                'label' => 'Caution, shown when ordering',
                'empty_data' => '',
                'constraints' => [new Length(max: 300)],
            ])
            ->add('note', TextType::class, [
                'label' => 'Standing sentence on their orders',
                'empty_data' => '',
                'constraints' => [new Length(max: 500)],
            ])
            ->add('notes', TextType::class, [
                'label' => 'Notes for ourselves',
                'empty_data' => '',
                'constraints' => [new Length(max: 2000)],
            ])
            ->add('language', EnumType::class, [
                'label' => 'Their orders are in',
                'class' => PaperLanguage::class,
                'empty_data' => PaperLanguage::English->value,
                'choice_label' => static fn (PaperLanguage $language): string => $language->words(),
            ])
            ->add('sees_prices', CheckboxType::class, [
                'label' => 'prices stand on their orders',
                'property_path' => 'seesPrices',
            ])
            ->add('wants_csv', CheckboxType::class, [
                'label' => 'orders go out with a CSV file of the lines beside the PDF',
                'property_path' => 'wantsCsv',
            ])
            ->add('inspected', CheckboxType::class, [
                'label' => 'what they send is inspected first',
            ])
            ->add('wants_xml', CheckboxType::class, [
                'label' => 'orders go out as XML too, for systems that read them (UBL 2.1)',
                'property_path' => 'wantsXml',
            ])
            ->add('csv_columns', TextareaType::class, [
                'label' => 'Columns of that file',
                'property_path' => 'csvColumns',
                'empty_data' => '',
                'constraints' => [new Length(max: 1000)],
                'help' => 'One a line, such as your_code = ArtNr. Empty for: '.implode(', ', CsvLayout::COLUMNS).'.',
                'attr' => ['rows' => 4],
            ])
            ->add('csv_delimiter', ChoiceType::class, [
                'label' => 'Between two of them',
                'property_path' => 'csvDelimiter',
                'empty_data' => ',',
                'choices' => ['a comma' => ',', 'a semicolon' => ';', 'a tabulator' => "\t"],
            ])
            ->add('csv_filename', TextType::class, [
                'label' => 'Its name',
                'property_path' => 'csvFilename',
                'empty_data' => '',
                'constraints' => [new Length(max: 60)],
                'help' => 'Such as PO_{order}. Empty for the number.',
            ]);
    }

    /**
     * What was agreed.
     *
     * @param FormBuilderInterface<SupplierDetails|null> $builder
     * @param array{suppliers: list<Supplier>, people: list<Person>, ...} $options
     */
    private function trade(FormBuilderInterface $builder, array $options): void
    {
        $builder
            ->add('delivery_terms', TextType::class, [
                'label' => 'Delivery terms',
                'property_path' => 'deliveryTerms',
                'empty_data' => '',
                'constraints' => [new Length(max: 80)],
                'help' => 'An Incoterm and a place, such as DAP Ferry Lane.',
            ])
            ->add('other_delivery_terms', TextareaType::class, [
                'label' => 'Other delivery terms',
                'property_path' => 'otherDeliveryTerms',
                'empty_data' => '',
                'constraints' => [new Length(max: 600)],
                'help' => 'One a line; an order chooses.',
                'attr' => ['rows' => 2],
            ])
            ->add('price_group', TextType::class, [
                'label' => 'Price group',
                'property_path' => 'priceGroup',
                'empty_data' => '',
                'constraints' => [new Length(max: 40)],
                'help' => 'Prices may be agreed for all of it.',
                'attr' => ['list' => 'supplier-groups', 'autocomplete' => 'off'],
            ])
            ->add('tax_name', ChoiceType::class, [
                'label' => 'Tax',
                'property_path' => 'taxName',
                'empty_data' => '',
                'placeholder' => false,
                'choices' => ['as said below' => ''] + $this->rates->choices(),
            ])
            ->add('tax', FigureType::class, [
                'label' => 'of',
                'unit' => '%',
            ])
            ->add('untaxed', EnumType::class, [
                'label' => 'Where it is 0',
                'class' => TaxCategory::class,
                'empty_data' => TaxCategory::ZeroRated->value,
                'choices' => TaxCategory::untaxed(),
                'choice_label' => static fn (TaxCategory $category): string => $category->words(),
            ])
            ->add('tolerance_percent', FigureType::class, [
                'label' => 'Invoices may ask more by',
                'property_path' => 'tolerancePercent',
                'unit' => '%',
                'help' => 'Left empty: 1 %, up to 5 a line.',
            ])
            ->add('tolerance_amount', FigureType::class, [
                'label' => 'up to',
                'property_path' => 'toleranceAmount',
                'kind' => FigureType::PRICE,
                'unit' => 'a line',
            ])
            ->add('net_days', WholeType::class, [
                'label' => 'Days to pay',
                'property_path' => 'netDays',
            ])
            ->add('discount_percent', FigureType::class, [
                'label' => 'Early discount',
                'property_path' => 'discountPercent',
                'unit' => '%',
            ])
            ->add('discount_days', WholeType::class, [
                'label' => 'if paid within',
                'property_path' => 'discountDays',
                'unit' => 'days',
            ])
            ->add('end_of_month', CheckboxType::class, [
                'label' => 'the days to pay begin at the end of the invoice’s month',
                'property_path' => 'endOfMonth',
            ])
            ->add('deposit', FigureType::class, [
                'label' => 'Deposit',
                'unit' => '%',
            ])
            ->add('instalments', PairsType::class, [
                'label' => 'Instalments',
                'left' => 'percent',
                'right' => 'after days',
                'between' => '@',
                'constraints' => [new Length(max: 120)],
                'help' => '50 after 30 days and 50 after 60; nothing for all at once.',
            ])
            ->add('paid_through', ChoiceType::class, [
                'label' => 'Paid through',
                'property_path' => 'paidThrough',
                'placeholder' => 'itself',
                'choices' => $options['suppliers'],
                'choice_value' => 'id',
                'choice_label' => 'name',
            ]);
    }

    /**
     * How it is ordered from.
     *
     * @param FormBuilderInterface<SupplierDetails|null> $builder
     * @param array{suppliers: list<Supplier>, people: list<Person>, ...} $options
     */
    private function ordering(FormBuilderInterface $builder, array $options): void
    {
        $builder
            ->add('minimum', FigureType::class, [
                'label' => 'Minimum order',
            ])
            ->add('minimum_kg', FigureType::class, [
                'label' => 'Least weight of an order',
                'property_path' => 'minimumKg',
                'unit' => 'kg',
            ])
            ->add('minimum_packs', WholeType::class, [
                'label' => 'Fewest packs of an order',
                'property_path' => 'minimumPacks',
                'of' => 'packs',
                'most' => 999999,
            ])
            ->add('free_freight', FigureType::class, [
                'label' => 'Free freight from',
                'property_path' => 'freeFreight',
            ])
            ->add('weekdays', ChoiceType::class, [
                'label' => 'Takes orders on',
                'choices' => ['Mo' => 1, 'Tu' => 2, 'We' => 3, 'Th' => 4, 'Fr' => 5, 'Sa' => 6, 'Su' => 7],
                'multiple' => true,
                'expanded' => true,
            ])
            ->add('cut_off', TextType::class, [
                'label' => 'until',
                'property_path' => 'cutOff',
                'empty_data' => '',
                'help' => 'An hour, such as 16:00.',
            ])
            ->add('buyer', ChoiceType::class, [
                'label' => 'Usual buyer',
                'property_path' => 'buyer',
                'placeholder' => 'whoever drafts',
                'choices' => $options['people'],
                'choice_value' => 'id',
                'choice_label' => 'name',
            ])
            ->add('freight_kind', ChoiceType::class, [
                'label' => 'Freight goes',
                'empty_data' => FreightTariff::FLAT,
                'property_path' => 'freightKind',
                'choices' => [
                    'none, or in the price' => FreightTariff::NONE,
                    'the same for each order' => FreightTariff::FLAT,
                    'by weight' => FreightTariff::WEIGHT,
                    'by the pallet' => FreightTariff::PALLET,
                ],
            ])
            ->add('freight', FigureType::class, [
                'label' => 'Freight of an order, or a pallet',
            ])
            ->add('freight_steps', PairsType::class, [
                'label' => 'Freight by weight',
                'property_path' => 'freightSteps',
                'left' => 'from kg',
                'right' => 'costs',
                'between' => '=',
                'constraints' => [new Length(max: 200)],
                'help' => 'The first from 0 kg.',
            ])
            ->add('pallet_kg', FigureType::class, [
                'label' => 'A pallet holds',
                'property_path' => 'palletKg',
                'unit' => 'kg',
            ]);
    }

    /**
     * Others to write to, and other places.
     *
     * @param FormBuilderInterface<SupplierDetails|null> $builder
     */
    private function others(FormBuilderInterface $builder): void
    {
        $builder
            ->add('quotes_contact', TextType::class, [
                'label' => 'Quotes are asked of',
                'property_path' => 'quotes.name',
                'empty_data' => '',
                'constraints' => [new Length(max: 80)],
            ])
            ->add('quotes_email', TextType::class, [
                'label' => 'Email',
                'property_path' => 'quotes.email',
                'empty_data' => '',
                'constraints' => [new Length(max: 180)],
                'attr' => ['inputmode' => 'email'],
            ])
            ->add('accounts_contact', TextType::class, [
                'label' => 'Invoices are talked over with',
                'property_path' => 'accounts.name',
                'empty_data' => '',
                'constraints' => [new Length(max: 80)],
            ])
            ->add('accounts_email', TextType::class, [
                'label' => 'Email',
                'property_path' => 'accounts.email',
                'empty_data' => '',
                'constraints' => [new Length(max: 180)],
                'attr' => ['inputmode' => 'email'],
            ])
            ->add('pay_street', TextType::class, [
                'label' => 'Paid at, if not where orders go: street',
                'property_path' => 'paidAt.street',
                'empty_data' => '',
                'constraints' => [new Length(max: 120)],
            ])
            ->add('pay_postcode', TextType::class, [
                'label' => 'Postcode',
                'property_path' => 'paidAt.postcode',
                'empty_data' => '',
                'constraints' => [new Length(max: 20)],
            ])
            ->add('pay_city', TextType::class, [
                'label' => 'Town',
                'property_path' => 'paidAt.city',
                'empty_data' => '',
                'constraints' => [new Length(max: 80)],
            ])
            ->add('pay_country', TextType::class, [
                'label' => 'Country',
                'property_path' => 'paidAt.country',
                'empty_data' => '',
                'attr' => ['maxlength' => 2],
            ])
            ->add('ship_street', TextType::class, [
                'label' => 'Ships from, if not where orders go: street',
                'property_path' => 'shipsFrom.street',
                'empty_data' => '',
                'constraints' => [new Length(max: 120)],
            ])
            ->add('ship_postcode', TextType::class, [
                'label' => 'Postcode',
                'property_path' => 'shipsFrom.postcode',
                'empty_data' => '',
                'constraints' => [new Length(max: 20)],
            ])
            ->add('ship_city', TextType::class, [
                'label' => 'Town',
                'property_path' => 'shipsFrom.city',
                'empty_data' => '',
                'constraints' => [new Length(max: 80)],
            ])
            ->add('ship_country', TextType::class, [
                'label' => 'Country',
                'property_path' => 'shipsFrom.country',
                'empty_data' => '',
                'attr' => ['maxlength' => 2],
            ]);
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setDefaults(['data_class' => SupplierDetails::class]);
        $resolver->setRequired(['suppliers', 'people']);
    }
}
