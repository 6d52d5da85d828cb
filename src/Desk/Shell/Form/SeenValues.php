<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell\Form;

use Symfony\Component\Form\AbstractTypeExtension;
use Symfony\Component\Form\Extension\Core\Type\FormType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\Form\FormEvent;
use Symfony\Component\Form\FormEvents;
use Symfony\Component\Form\FormInterface;
use Symfony\Component\Form\FormView;

/**
 * What somebody saw before they typed goes along with a page of fields, so that they are told what somebody else
 * changed meanwhile instead of putting it back unseen.
 */
final class SeenValues extends AbstractTypeExtension
{
    public const FIELD = 'seen';

    public static function getExtendedTypes(): iterable
    {
        return [FormType::class];
    }

    public function buildForm(FormBuilderInterface $builder, array $options): void
    {
        if ('' !== $builder->getName()) {
            return;
        }
        $builder->setAttribute(self::FIELD, new \ArrayObject());
        $builder->addEventListener(FormEvents::POST_SET_DATA, static function (FormEvent $event): void {
            $form = $event->getForm();
            $there = $form->getConfig()->getAttribute(self::FIELD);
            if ($there instanceof \ArrayObject) {
                $there->exchangeArray(self::values($form));
            }
        });
    }

    public function buildView(FormView $view, FormInterface $form, array $options): void
    {
        $view->vars[self::FIELD] = (string) json_encode(self::there($form), \JSON_INVALID_UTF8_SUBSTITUTE);
    }

    /**
     * @param FormInterface<mixed> $form as it was submitted
     *
     * @return array<string, string> what stands there now where it is not what was seen, by the name of the field;
     *      empty for a form that brings nothing along
     */
    public static function changed(FormInterface $form): array
    {
        $seen = $form->getExtraData()[self::FIELD] ?? null;
        $seen = is_string($seen) ? json_decode($seen, true) : null;

        return is_array($seen)
            ? array_filter(
                self::there($form),
                static fn (string $now, string $field): bool => isset($seen[$field]) && $seen[$field] !== $now,
                \ARRAY_FILTER_USE_BOTH,
            )
            : [];
    }

    /**
     * @param FormInterface<mixed> $form
     *
     * @return array<string, string>
     */
    private static function there(FormInterface $form): array
    {
        $there = $form->getConfig()->getAttribute(self::FIELD);
        $values = [];
        foreach ($there instanceof \ArrayObject ? $there : [] as $field => $value) {
            $values[(string) $field] = is_string($value) ? $value : '';
        }

        return $values;
    }

    /**
     * @param FormInterface<mixed> $form
     *
     * @return array<string, string>
     */
    private static function values(FormInterface $form): array
    {
        $values = [];
        foreach ($form->all() as $name => $field) {
            $value = $field->getViewData();
            $values[(string) $name] = match (true) {
                null === $value, false === $value => '',
                is_scalar($value) => (string) $value,
                is_array($value) => implode(', ', array_filter($value, is_string(...))),
                default => '',
            };
        }

        return $values;
    }
}
