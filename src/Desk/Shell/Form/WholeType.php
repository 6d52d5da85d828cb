<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell\Form;

use Symfony\Component\Form\AbstractType;
use Symfony\Component\Form\CallbackTransformer;
use Symfony\Component\Form\Exception\TransformationFailedException;
use Symfony\Component\Form\Extension\Core\Type\TextType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\OptionsResolver\OptionsResolver;

/**
 * A whole number from 0, or null when left empty: days, places, packs.
 *
 * @extends AbstractType<int|null>
 */
final class WholeType extends AbstractType
{
    public function buildForm(FormBuilderInterface $builder, array $options): void
    {
        /** @var array{of: string, most: int} $options */
        $builder->addViewTransformer(
            new CallbackTransformer(
                static fn (?int $number): string => (string) $number,
                static function (?string $typed) use ($options): ?int {
                    $typed = trim((string) $typed);
                    if ('' === $typed) {
                        return null;
                    }
                    if (1 !== preg_match('/^\d{1,9}$/', $typed) || (int) $typed > $options['most']) {
                        $message = sprintf(
                            '“%s” is not a number of %s up to %d.',
                            $typed,
                            $options['of'],
                            $options['most'],
                        );

                        throw new TransformationFailedException($message, 0, null, $message);
                    }

                    return (int) $typed;
                },
            ),
        );
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setDefaults([
            'of' => 'days',
            'most' => 999,
            'attr' => ['inputmode' => 'numeric', 'autocomplete' => 'off'],
        ]);
        $resolver->setAllowedTypes('of', 'string');
        $resolver->setAllowedTypes('most', 'int');
    }

    public function getParent(): string
    {
        return TextType::class;
    }
}
