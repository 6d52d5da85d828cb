<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settle;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\BroughtFile;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\KeptFile;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\InvoicePapers;
use TallBarrel\Store\Settle\Invoices;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Settling\ReadPaper;

/** The files that invoices come as, and come with. */
#[Route('/settle')]
#[AboutMoney]
final class InvoiceFileController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly InvoicePapers $papers,
        private readonly Invoices $invoices,
        private readonly ReadPaper $read,
    ) {
    }

    #[Route('/read', name: 'invoice_read', methods: ['GET']), IsGranted('ROLE_INVOICE')]
    public function ask(): Response
    {
        return $this->page(Fields::none());
    }

    /** What it says stands in the form of an invoice then; nothing is entered before somebody says so. */
    #[Route('/read', name: 'invoice_read_file', methods: ['POST']), IsGranted('ROLE_INVOICE')]
    public function read(Request $request, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $from = $this->entities->find(Supplier::class, (int) $fields->text('supplier', 12));
        $bytes = $fields->attempt('file', static fn (): ?string => BroughtFile::in($request, 'file'));
        if (null === $bytes && $fields->isGood()) {
            $fields->refuse('file', 'Choose the file that the invoice came as.');
        }
        $kept = null;
        if (null !== $bytes) {
            try {
                $kept = $fields->attempt('file', fn () => $this->read->keep(
                    BroughtFile::named($request, 'file'),
                    $bytes,
                    $from,
                    $person,
                ));
            } catch (Refused $refused) {
                $fields->refuse('file', $refused->getMessage());
            }
        }

        return null === $kept
            ? $this->page($fields)
            : $this->redirectToRoute(
                $this->read->isCredit($kept) ? 'credit_new' : 'invoice_new',
                ['code' => $kept->supplier->code, 'paper' => $kept->id],
            );
    }

    #[Route('/papers/{id}', name: 'invoice_paper', requirements: ['id' => '\d+'], methods: ['GET'])]
    public function show(int $id): Response
    {
        $paper = $this->papers->find($id) ?? throw $this->createNotFoundException('There is no such file.');

        return KeptFile::of($paper->name, $paper->mime, $paper->content());
    }

    /** The invoice itself, where it was typed. */
    #[Route('/{id}/papers', name: 'invoice_attach', requirements: ['id' => '\d+'], methods: ['POST'])]
    #[IsGranted('ROLE_INVOICE')]
    public function attach(int $id, Request $request, #[CurrentUser] Person $person): Response
    {
        $invoice = $this->invoices->find($id) ?? throw $this->createNotFoundException('There is no such invoice.');
        $fields = Fields::of($request);
        $bytes = $fields->attempt('file', static fn (): ?string => BroughtFile::in($request, 'file'));
        try {
            if (null !== $bytes) {
                $name = BroughtFile::named($request, 'file');
                $fields->apply('file', fn () => $this->read->attach($invoice, $name, $bytes, $person));
            }
            foreach ($fields->errors() as $words) {
                throw new Refused($words);
            }
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }

        return $this->redirectToRoute('settle_invoice', ['id' => $id]);
    }

    private function page(Fields $fields): Response
    {
        return $this->render('settle/read.html.twig', [
            'fields' => $fields,
            'suppliers' => $this->entities->getRepository(Supplier::class)
                ->findBy(['archivedOn' => null], ['name' => 'ASC']),
        ], new Response(status: $fields->isGood() ? 200 : 422));
    }
}
