<?php

declare(strict_types=1);

namespace TallBarrel\Exchange;

use TallBarrel\Work\Keeping\Leftovers;

final readonly class LeftFiles implements Leftovers
{
    public function __construct(private string $instanceDir)
    {
    }

    public function sweep(): void
    {
        foreach (['mail', 'uploads'] as $folder) {
            foreach (glob(sprintf('%s/%s/*', $this->instanceDir, $folder)) ?: [] as $file) {
                if (is_file($file)) {
                    unlink($file);
                }
            }
        }
    }
}
