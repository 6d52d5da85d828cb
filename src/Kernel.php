<?php

declare(strict_types=1);

namespace TallBarrel;

use Symfony\Bundle\FrameworkBundle\Kernel\MicroKernelTrait;
use Symfony\Component\HttpKernel\Kernel as BaseKernel;

/** Everything an instance writes (cache, logs, mail, uploads) is under var/ in a folder of its own. */
final class Kernel extends BaseKernel
{
    use MicroKernelTrait;

    public function getCacheDir(): string
    {
        return $this->instanceDir().'/cache/'.$this->environment;
    }

    public function getLogDir(): string
    {
        return $this->instanceDir().'/log';
    }

    /** @return array<string, array<mixed>|bool|float|int|string|\UnitEnum|null> */
    protected function getKernelParameters(): array
    {
        return parent::getKernelParameters() + ['instance_dir' => $this->instanceDir()];
    }

    private function instanceDir(): string
    {
        $instance = $_SERVER['TALLBARREL_INSTANCE'] ?? 'app';

        return $this->getProjectDir().'/var/'.(is_string($instance) ? $instance : 'app');
    }
}
