<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell\Form;

use Symfony\Component\Form\AbstractType;
use Symfony\Component\Form\CallbackTransformer;
use Symfony\Component\Form\Extension\Core\Type\TextType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\Form\FormEvent;
use Symfony\Component\Form\FormEvents;
use Symfony\Component\Form\FormInterface;
use Symfony\Component\Form\FormView;
use Symfony\Component\OptionsResolver\OptionsResolver;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Numerals;
use TallBarrel\Store\Business\CurrentBusiness;

/**
 * A small table of two columns for what is kept as one text: "1=9.30 40=8.97", "50@30 50@60". What was typed is handed
 * on
 * as it is; whoever keeps it reads the figures. A text sent as a whole is taken too.
 *
 * @extends AbstractType<string>
 */
final class PairsType extends AbstractType
{
    private const LEAST_ROWS = 3;
    private const MOST_ROWS = 20;

    public function __construct(private readonly CurrentBusiness $business)
    {
    }

    public function buildForm(FormBuilderInterface $builder, array $options): void
    {
        $mark = $this->business->find()?->decimalMark() ?? Numerals::POINT;
        $between = self::word($options, 'between');
        $alone = self::word($options, 'alone');
        $builder
            ->addModelTransformer(
                new CallbackTransformer(
                    static fn (mixed $kept): array => array_map(
                        static fn (string $cell): string => self::shown($cell, $mark),
                        self::cells(self::pairs(is_string($kept) ? $kept : '', $between)),
                    ),
                    static fn (mixed $cells): string => self::text(
                        array_map(
                            static fn (mixed $cell): mixed => is_string($cell) ? self::kept($cell, $mark) : $cell,
                            is_array($cells) ? $cells : [],
                        ),
                        $between,
                        $alone,
                    ),
                ),
            )
            ->addEventListener(FormEvents::PRE_SET_DATA, static function (FormEvent $event) use ($between): void {
                $text = $event->getData();
                self::addRows($event->getForm(), count(self::pairs(is_string($text) ? $text : '', $between)));
            })
            ->addEventListener(FormEvents::PRE_SUBMIT, static function (FormEvent $event) use ($between): void {
                $sent = $event->getData();
                if (is_string($sent)) {
                    $event->setData($sent = self::cells(self::pairs($sent, $between)));
                }
                self::addRows($event->getForm(), intdiv(count(is_array($sent) ? $sent : []) + 1, 2));
            });
    }

    /** @param FormInterface<mixed> $form */
    private static function addRows(FormInterface $form, int $filled): void
    {
        for ($row = 0; $row < min(self::MOST_ROWS, max(self::LEAST_ROWS, $filled + 1)); ++$row) {
            foreach (['left', 'right'] as $side) {
                if (!$form->has($side.$row)) {
                    $form->add($side.$row, TextType::class, ['empty_data' => '', 'required' => false]);
                }
            }
        }
    }

    /** A figure with the mark of the business; what is none stays as it is. */
    private static function shown(string $cell, string $mark): string
    {
        return 1 === preg_match('/^\d+\.\d+$/', $cell) ? str_replace('.', $mark, $cell) : $cell;
    }

    /** A figure with a point, as it is kept; what cannot be read is left to whoever keeps it to refuse. */
    private static function kept(string $cell, string $mark): string
    {
        if (1 !== preg_match('/^[\d.,]+$/', trim($cell))) {
            return $cell;
        }
        try {
            return Numerals::with($mark)->decimal(trim($cell), 6)->toString();
        } catch (InvalidValue) {
            return $cell;
        }
    }

    /** @return list<array{string, string}> */
    private static function pairs(string $text, string $between): array
    {
        return array_map(static function (string $pair) use ($between): array {
            $parts = '' === $between ? [$pair] : explode($between, $pair, 2);

            return [count($parts) > 1 ? $parts[0] : '', $parts[count($parts) - 1]];
        }, preg_split('/\s+/', $text, -1, \PREG_SPLIT_NO_EMPTY) ?: []);
    }

    /**
     * @param list<array{string, string}> $pairs
     *
     * @return array<string, string> by the name of the field
     */
    private static function cells(array $pairs): array
    {
        $cells = [];
        foreach ($pairs as $row => [$left, $right]) {
            $cells += ['left'.$row => $left, 'right'.$row => $right];
        }

        return $cells;
    }

    /** @param array<array-key, mixed> $cells by the name of the field */
    private static function text(array $cells, string $between, string $alone): string
    {
        $typed = static fn (string $name): string => is_string($cells[$name] ?? null)
            ? (string) preg_replace('/\s+/', '', $cells[$name])
            : '';
        $pairs = [];
        for ($row = 0; $row < self::MOST_ROWS; ++$row) {
            [$left, $right] = [$typed('left'.$row), $typed('right'.$row)];
            if ('' !== $left || '' !== $right) {
                // The first price needs no "from"; a pair half filled is refused by whoever reads it.
                $pairs[] = '' === $left && '' !== $alone ? $right : $left.$between.$right;
            }
        }

        return implode(' ', $pairs);
    }

    /** @param array<array-key, mixed> $options */
    private static function word(array $options, string $name): string
    {
        return is_string($options[$name] ?? null) ? $options[$name] : '';
    }

    public function buildView(FormView $view, FormInterface $form, array $options): void
    {
        $view->vars['left'] = $options['left'];
        $view->vars['right'] = $options['right'];
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setRequired(['left', 'right', 'between']);
        $resolver->setDefaults([
            'alone' => '',
            'compound' => true,
            'data_class' => null,
            'empty_data' => [],
            'error_bubbling' => false,
            'allow_extra_fields' => true,
        ]);
        foreach (['left', 'right', 'between', 'alone'] as $option) {
            $resolver->setAllowedTypes($option, 'string');
        }
    }

    public function getBlockPrefix(): string
    {
        return 'pairs';
    }
}
