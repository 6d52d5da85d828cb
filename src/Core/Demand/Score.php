<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand;

/** How a method did on values it had not seen. */
final readonly class Score
{
    /**
     * @param float $deciding root mean squared error over the horizon, in units of demand: what the contest is decided
     *      by
     * @param float $mase     mean absolute scaled error
     * @param float $rmsse    root mean squared scaled error
     * @param float $bias     mean of forecast − demand as a share of the mean demand; above zero forecasts too much
     * @param float $tracking tracking signal: sum of one-step errors (demand − forecast) over their mean absolute
     *      value; above zero forecasts too little
     */
    public function __construct(
        public float $deciding,
        public float $mase,
        public float $rmsse,
        public float $bias,
        public float $tracking,
    ) {
    }

    /** What decides made worse by a share: a method that is free to fit chance must do better. */
    public function handicapped(float $share): self
    {
        return new self($this->deciding * (1 + $share), $this->mase, $this->rmsse, $this->bias, $this->tracking);
    }
}
