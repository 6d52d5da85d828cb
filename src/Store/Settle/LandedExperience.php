<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

/** What goods cost in the end beside what was expected when they were booked in, over some receipts. */
final readonly class LandedExperience
{
    /** Below this nobody would order otherwise (common practice, no source). */
    private const SLIGHT = 0.5;

    /**
     * @param float $planned home currency, not zero
     * @param float $landed  the same, with charges, prices and rates as they came
     */
    public function __construct(private float $planned, private float $landed, public int $receipts)
    {
    }

    /** By how much dearer it came, percent; less than nothing for cheaper. */
    public function percent(): float
    {
        return 100 * ($this->landed - $this->planned) / $this->planned;
    }

    public function words(): string
    {
        $of = sprintf('%d receipt%s', $this->receipts, 1 === $this->receipts ? '' : 's');

        $how = $this->percent() > 0 ? 'dearer' : 'cheaper';

        return abs($this->percent()) < self::SLIGHT
            ? 'as expected, '.$of
            : sprintf('%.1f %% %s than expected, %s', abs($this->percent()), $how, $of);
    }
}
