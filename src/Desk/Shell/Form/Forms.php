<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell\Form;

use Symfony\Component\Form\FormError;
use Symfony\Component\Form\FormFactoryInterface;
use Symfony\Component\Form\FormInterface;
use Symfony\Component\Form\FormTypeInterface;
use TallBarrel\Core\Problems;

/** Pages of plain fields. */
final readonly class Forms
{
    public function __construct(private FormFactoryInterface $factory)
    {
    }

    /**
     * A form whose fields have the names they are given, without a prefix.
     *
     * @param class-string            $type    of a form type
     * @param array<string, mixed>    $options
     *
     * @return FormInterface<mixed>
     */
    public function of(string $type, object $entry, array $options = []): FormInterface
    {
        if (!is_subclass_of($type, FormTypeInterface::class)) {
            throw new \LogicException($type.' is no type of form.');
        }

        return $this->factory->createNamed('', $type, $entry, $options + ['allow_extra_fields' => true]);
    }

    /**
     * What an act refused stands at the field it concerns, or above the form.
     *
     * @param FormInterface<mixed> $form
     */
    public static function show(Problems $problems, FormInterface $form): void
    {
        foreach ($problems->all() as $place => $reason) {
            ($form->has($place) ? $form->get($place) : $form)->addError(new FormError($reason));
        }
    }
}
