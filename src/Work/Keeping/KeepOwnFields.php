<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Quantity\Numerals;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\OwnField;
use TallBarrel\Store\Business\OwnFieldKind;
use TallBarrel\Store\Business\OwnFields;
use TallBarrel\Store\Business\OwnFieldThing;
use TallBarrel\Store\Person\Person;

/** Fields of the business's own: made, changed, given up, and filled in. */
final readonly class KeepOwnFields
{
    private const MOST = 12;

    public function __construct(
        private EntityManagerInterface $entities,
        private OwnFields $fields,
        private CurrentBusiness $business,
        private AllOrNothing $whole,
        private Audit $audit,
    ) {
    }

    /** @param list<string> $choices */
    public function add(
        OwnFieldThing $thing,
        string $label,
        OwnFieldKind $kind,
        bool $onPaper,
        array $choices,
        Person $by,
        Problems $problems,
    ): void {
        $field = $problems->attempt('label', function () use ($thing, $label, $kind, $onPaper, $choices): OwnField {
            $known = $this->fields->of($thing);
            if (count($known) >= self::MOST) {
                throw InvalidValue::because(sprintf('At most %d fields of your own fit here.', self::MOST));
            }
            foreach ($this->fields->all() as $other) {
                if ($other->thing === $thing && 0 === strcasecmp($other->label(), trim($label))) {
                    throw InvalidValue::because(sprintf('There is a field “%s” there already.', $other->label()));
                }
            }

            return new OwnField($thing, $label, $kind, $onPaper, $choices);
        });
        if (null === $field || !$problems->areNone()) {
            return;
        }
        $this->business->get()->asksOwn($thing);
        $this->entities->persist($field);
        $this->audit->note($by, 'own fields', sprintf('Added %s on every %s', $field->label(), $thing->value));
        $this->entities->flush();
    }

    public function giveUp(OwnField $field, bool $over, Person $by): void
    {
        $field->giveUp($over);
        $this->audit->note($by, 'own fields', sprintf('%s %s', $field->label(), $over ? 'given up' : 'taken up again'));
        $this->entities->flush();
    }

    /**
     * @param array<int, string> $typed by field
     * @param Problems           $problems at own-12 for the field 12; nothing is saved then
     */
    public function fill(OwnFieldThing $thing, int $id, array $typed, Numerals $numerals, Problems $problems): void
    {
        $read = [];
        foreach ($this->fields->of($thing) as $field) {
            $value = $problems->attempt(
                'own-'.$field->id,
                static fn (): string => $field->read($typed[$field->id] ?? '', $numerals),
            );
            $read[] = [$field, (string) $value];
        }
        if ($problems->areNone()) {
            $this->whole->take(function () use ($read, $id): void {
                foreach ($read as [$field, $value]) {
                    $this->fields->put($field, $id, $value);
                }
            });
        }
    }
}
