<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use TallBarrel\Core\Money\Tax;
use TallBarrel\Store\Business\TaxRates;
use Twig\Attribute\AsTwigFunction;

/** The rates of tax that have a name, to choose from. */
final readonly class TaxNames
{
    public function __construct(private TaxRates $rates)
    {
    }

    /** @return array<string, Tax> */
    #[AsTwigFunction('tax_names')]
    public function all(): array
    {
        return $this->rates->today();
    }

    /** @return array<string, string> names by what stands for them in a list */
    public function choices(): array
    {
        $choices = [];
        foreach ($this->rates->today() as $name => $tax) {
            $choices[$name.', '.$tax->words()] = $name;
        }

        return $choices;
    }
}
