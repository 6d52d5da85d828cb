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
     * Does something with what was typed, even where part of it could not be read, so that all that is wrong is said at
     * once: what the act refuses stands at the field it concerns, or above the form.
     *
     * @template T
     *
     * @param FormInterface<mixed>  $form
     * @param callable(Problems): T $act  saves nothing unless there are no problems
     *
     * @return T
     */
    public static function attempt(FormInterface $form, callable $act): mixed
    {
        $problems = new Problems();
        foreach ($form->getErrors(true) as $error) {
            $origin = $error instanceof FormError ? $error->getOrigin() : null;
            $problems->refuse($origin?->getName() ?? '', $error->getMessage());
        }
        $changed = [];
        foreach (SeenValues::changed($form) as $field => $now) {
            $label = $form->get($field)->getConfig()->getOption('label');
            $changed[] = sprintf(
                '%s is %s now',
                is_string($label) ? $label : $field,
                '' === $now ? 'empty' : '“'.$now.'”',
            );
        }
        if ([] !== $changed) {
            $problems->refuse('', sprintf(
                'Somebody else changed this meanwhile: %s. What you typed stands here; save again to have it so.',
                implode('; ', $changed),
            ));
            $form->addError(new FormError((string) $problems->at('')));
        }
        $known = $problems->all();
        $done = $act($problems);
        foreach (array_diff_key($problems->all(), $known) as $place => $reason) {
            ($form->has($place) ? $form->get($place) : $form)->addError(new FormError($reason));
        }

        return $done;
    }
}
