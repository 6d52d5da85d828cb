<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Pdf;

use Dompdf\Dompdf;
use Dompdf\Options;
use Twig\Environment;

/** Puts a template on A4. */
final readonly class Paper
{
    public function __construct(private Environment $twig, private string $instanceDir)
    {
    }

    /** @param array<string, mixed> $model */
    public function pdf(string $template, array $model): string
    {
        $fonts = $this->instanceDir.'/pools/pdf';
        if (!is_dir($fonts)) {
            mkdir($fonts, 0o775, true);
        }
        $dompdf = new Dompdf(
            new Options([
                'defaultFont' => 'DejaVu Sans',
                'isRemoteEnabled' => false,
                'isPhpEnabled' => false,
                'fontCache' => $fonts,
                'tempDir' => $fonts,
            ]),
        );
        $dompdf->setPaper('A4');
        $dompdf->loadHtml($this->twig->render($template, $model), 'UTF-8');
        $dompdf->render();
        $dompdf
            ->getCanvas()
            ->page_text(
                500,
                808,
                '{PAGE_NUM} / {PAGE_COUNT}',
                $dompdf->getFontMetrics()->getFont('DejaVu Sans') ?? 'helvetica',
                7,
            );

        return (string) $dompdf->output();
    }
}
