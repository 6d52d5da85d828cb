<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell\Form;

use Symfony\Component\Form\AbstractTypeExtension;
use Symfony\Component\Form\Extension\Core\Type\FormType;
use Symfony\Component\Form\FormInterface;
use Symfony\Component\Form\FormView;
use Symfony\Component\OptionsResolver\OptionsResolver;

/**
 * What all our fields share: a unit that stands in the label, "" for an empty text, and names without a prefix. The
 * token is looked at before any form is; see CsrfGuard.
 */
final class Plain extends AbstractTypeExtension
{
    public static function getExtendedTypes(): iterable
    {
        return [FormType::class];
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setDefaults(['unit' => '', 'required' => false]);
        $resolver->setAllowedTypes('unit', 'string');
    }

    public function buildView(FormView $view, FormInterface $form, array $options): void
    {
        $view->vars['unit'] = $options['unit'];
    }
}
