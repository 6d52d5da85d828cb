<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Day;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Numerals;

/** A field that this business added to something it keeps. */
#[ORM\Entity]
#[ORM\UniqueConstraint(name: 'own_field_label', columns: ['thing', 'label'])]
class OwnField
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** @var list<string> to choose from, where it is a choice */
    #[ORM\Column(type: 'json')]
    private array $choices = [];

    /** Given up: no longer asked for, but what stands in it stays. */
    #[ORM\Column(name: 'given_up', options: ['default' => false])]
    private bool $over = false;

    /**
     * @param list<string> $choices
     *
     * @throws InvalidValue
     */
    public function __construct(
        #[ORM\Column(length: 10, enumType: OwnFieldThing::class)] public readonly OwnFieldThing $thing,
        #[ORM\Column(length: 40)] private string $label,
        #[ORM\Column(length: 10, enumType: OwnFieldKind::class)] public readonly OwnFieldKind $kind,
        #[ORM\Column(options: ['default' => false])] private bool $onPaper,
        array $choices = [],
    ) {
        $this->change($label, $onPaper, $choices);
    }

    /**
     * @param list<string> $choices
     *
     * @throws InvalidValue without a label, or a choice of nothing
     */
    public function change(string $label, bool $onPaper, array $choices): void
    {
        $this->label = '' !== trim($label) ? trim($label) : throw InvalidValue::because('The field needs a name.');
        $choices = array_values(
            array_unique(array_filter(array_map(trim(...), $choices), static fn (string $one): bool => '' !== $one)),
        );
        if (OwnFieldKind::Choice === $this->kind && count($choices) < 2) {
            throw InvalidValue::because('A choice needs two answers or more, one a line.');
        }
        $this->choices = OwnFieldKind::Choice === $this->kind ? $choices : [];
        $this->onPaper = $onPaper;
    }

    /**
     * What was typed, as it is kept.
     *
     * @throws InvalidValue if it is not what the field is for
     */
    public function read(string $typed, Numerals $numerals): string
    {
        $typed = trim($typed);
        if ('' === $typed) {
            return '';
        }
        if (mb_strlen($typed) > 200) {
            throw InvalidValue::because(sprintf('%s: at most 200 characters fit here.', $this->label));
        }

        return match ($this->kind) {
            OwnFieldKind::Text => $typed,
            OwnFieldKind::Number => $numerals
                ->decimal($typed, 6, sprintf('a number for “%s”', $this->label), true)
                ->strippedOfTrailingZeros()
                ->toString(),
            OwnFieldKind::Day => Day::read($typed)->format('Y-m-d'),
            OwnFieldKind::Choice => in_array($typed, $this->choices, true) ? $typed : throw InvalidValue::because(
                sprintf('“%s” is none of the answers of “%s”: %s.', $typed, $this->label,
                    implode(', ', $this->choices)),
            ),
        };
    }

    public function giveUp(bool $over): void
    {
        $this->over = $over;
    }

    public function label(): string
    {
        return $this->label;
    }

    public function isOnPaper(): bool
    {
        return $this->onPaper;
    }

    public function isOver(): bool
    {
        return $this->over;
    }

    /** @return list<string> */
    public function choices(): array
    {
        return $this->choices;
    }
}
