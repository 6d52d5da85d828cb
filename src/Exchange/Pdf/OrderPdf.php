<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Pdf;

use Dompdf\Dompdf;
use Dompdf\Options;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Order\OrderPaper;
use TallBarrel\Store\Order\PurchaseOrder;
use Twig\Environment;

/** A purchase order on paper. */
final readonly class OrderPdf implements OrderPaper
{
    public function __construct(private Environment $twig, private CurrentBusiness $business, private string $instanceDir)
    {
    }

    public function pdf(PurchaseOrder $order): string
    {
        $fonts = $this->instanceDir.'/pools/pdf';
        if (!is_dir($fonts)) {
            mkdir($fonts, 0o775, true);
        }
        $dompdf = new Dompdf(new Options(['defaultFont' => 'DejaVu Sans', 'isRemoteEnabled' => false, 'isPhpEnabled' => false, 'fontCache' => $fonts, 'tempDir' => $fonts]));
        $dompdf->setPaper('A4');
        $dompdf->loadHtml($this->twig->render('paper/order.html.twig', ['order' => $order, 'business' => $this->business->get()]), 'UTF-8');
        $dompdf->render();
        $dompdf->getCanvas()->page_text(500, 808, '{PAGE_NUM} / {PAGE_COUNT}', $dompdf->getFontMetrics()->getFont('DejaVu Sans') ?? 'helvetica', 7);

        return (string) $dompdf->output();
    }
}
