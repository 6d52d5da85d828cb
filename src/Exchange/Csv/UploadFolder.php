<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use Symfony\Component\Filesystem\Filesystem;
use TallBarrel\Work\Keeping\KeptFiles;

/** A folder of the instance's own, under names nobody can guess. */
final readonly class UploadFolder implements KeptFiles
{
    public function __construct(private string $instanceDir)
    {
    }

    public function keep(string $file): string
    {
        $kept = $this->instanceDir.'/uploads/'.bin2hex(random_bytes(12)).'.csv';
        (new Filesystem())->copy($file, $kept, true);

        return $kept;
    }

    public function remove(string $kept): void
    {
        (new Filesystem())->remove($kept);
    }
}
