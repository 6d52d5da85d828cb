<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use TallBarrel\Store\Business\OwnField;
use TallBarrel\Store\Business\OwnFields;
use TallBarrel\Store\Business\OwnFieldThing;
use Twig\Attribute\AsTwigFunction;

/** Fields of the business's own, for whatever page shows what carries them. */
final readonly class OwnValues
{
    public function __construct(private OwnFields $fields)
    {
    }

    /** @return list<OwnField> */
    #[AsTwigFunction('own_fields')]
    public function of(OwnFieldThing $thing): array
    {
        return $this->fields->of($thing);
    }

    /** @return array<int, string> by field */
    #[AsTwigFunction('own_values')]
    public function values(OwnFieldThing $thing, int $id): array
    {
        return $this->fields->values($thing, $id);
    }

    /** @return array<string, string> by the field's name */
    #[AsTwigFunction('own_on_paper')]
    public function onPaper(OwnFieldThing $thing, int $id): array
    {
        return $this->fields->onPaper($thing, $id);
    }
}
