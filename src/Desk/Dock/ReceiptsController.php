<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Dock;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Desk\Shell\TakenFile;
use TallBarrel\Store\Business\OwnFields;
use TallBarrel\Store\Business\OwnFieldThing;
use TallBarrel\Store\Dock\ReceiptRows;

/** What was booked in, to be looked through and taken away. */
#[Route('/dock/receipts')]
final class ReceiptsController extends AbstractController
{
    private const SHOWN = 200;
    private const TAKEN = 100_000;

    public function __construct(
        private readonly ReceiptRows $rows,
        private readonly OwnFields $own,
        private readonly Shell $shell,
    ) {
    }

    #[Route('', name: 'receipts', methods: ['GET'], priority: 1)]
    public function list(Request $request): Response
    {
        $words = trim($request->query->getString('words'));

        return $this->render('dock/receipts.html.twig', [
            'rows' => $this->rows->find($words, $this->shell->site(), self::SHOWN),
            'words' => $words,
            'most' => self::SHOWN,
            'fields' => $this->own->of(OwnFieldThing::Delivery),
            'values' => $this->own->valuesOfAll(OwnFieldThing::Delivery),
        ]);
    }

    #[Route('.{format}', name: 'receipts_file', requirements: ['format' => TakenFile::FORMATS], methods: ['GET'],
        priority: 1)]
    public function take(string $format, Request $request, TakenFile $file): Response
    {
        $fields = $this->own->of(OwnFieldThing::Delivery);
        $values = $this->own->valuesOfAll(OwnFieldThing::Delivery);
        $rows = [[
            'receipt', 'day', 'delivery_note', 'supplier', 'site', 'order', 'item', 'description', 'packs', 'pack',
            'stock_units', 'lot', 'booked_by', ...OwnFields::labels($fields),
        ]];
        foreach (
            $this->rows->find(trim($request->query->getString('words')), $this->shell->site(), self::TAKEN) as $row
        ) {
            $rows[] = [
                $row['number'], $row['day'], $row['note'], $row['supplier_code'], $row['site'], $row['orders'],
                $row['code'], $row['item'], (string) (float) $row['packs'], $row['pack'],
                (string) (float) $row['units'], $row['lot'], $row['person'],
                ...OwnFields::cells($fields, $values[$row['delivery']] ?? []),
            ];
        }

        return $file->of('receipts', $rows, $format);
    }
}
