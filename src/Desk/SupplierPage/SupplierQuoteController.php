<?php

declare(strict_types=1);

namespace TallBarrel\Desk\SupplierPage;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Rounds\AnswerForm;
use TallBarrel\Desk\Rounds\RoundsController;
use TallBarrel\Desk\Shell\CsrfGuard;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Quote\Quote;
use TallBarrel\Store\Quote\QuoteAnswer;
use TallBarrel\Store\Quote\Rounds;
use TallBarrel\Work\Sourcing\AnswerQuote;
use TallBarrel\Work\Sourcing\QuoteSheet;

/**
 * The page a supplier answers one quote on: no sign-in, only the link, which leads to that quote and nothing else, is
 * throttled, and ends.
 */
#[Route('/quote/{token}', requirements: ['token' => '[0-9A-Za-z]{1,80}'], defaults: [CsrfGuard::BY_LINK => true])]
final class SupplierQuoteController extends AbstractController
{
    public function __construct(
        private readonly Rounds $rounds,
        private readonly CurrentBusiness $business,
        private readonly EntityManagerInterface $entities,
        private readonly ClockInterface $clock,
        private readonly ByLink $link,
    ) {
    }

    #[Route('', name: 'supplier_quote', methods: ['GET'])]
    public function show(string $token, Request $request): Response
    {
        $quote = $this->quote($token, $request);
        if (null !== $quote && null === $quote->openedAt()) {
            $quote->opened($this->clock->now());
            $this->entities->flush();
        }

        return $this->page($quote, Fields::none());
    }

    #[Route('', name: 'supplier_quote_answer', methods: ['POST'])]
    public function answer(string $token, Request $request, AnswerForm $form): Response
    {
        $quote = $this->quote($token, $request);
        $fields = Fields::of($request);
        if (null === $quote) {
            return $this->page(null, $fields);
        }
        $file = $request->files->get('file');
        $answer =
            $file instanceof UploadedFile && $file->isValid()
                ? $form->takeFile($quote, $fields, (string) file_get_contents($file->getPathname(), length: 1 << 20))
                : $form->take($quote, $fields, QuoteAnswer::PAGE);

        return null === $answer
            ? $this->page($this->quote($token, $request), $fields)
            : $this->redirectToRoute('supplier_quote', ['token' => $token, 'thanks' => 1]);
    }

    #[Route('/decline', name: 'supplier_quote_decline', methods: ['POST'])]
    public function decline(string $token, Request $request, AnswerQuote $answering): Response
    {
        $quote = $this->quote($token, $request);
        $fields = Fields::of($request);
        if (null === $quote) {
            return $this->page(null, $fields);
        }
        try {
            $answering->decline($quote, $fields->text('reason', 300));
        } catch (Refused $refused) {
            $fields->refuse('answer', $refused->getMessage());

            return $this->page($this->quote($token, $request), $fields);
        }

        return $this->redirectToRoute('supplier_quote', ['token' => $token]);
    }

    #[Route('/sheet.csv', name: 'supplier_quote_sheet', methods: ['GET'])]
    public function sheet(string $token, Request $request, QuoteSheet $sheet): Response
    {
        $quote = $this->quote($token, $request);

        return null === $quote
            ? $this->page(null, Fields::none())
            : new Response($sheet->blank($quote), 200, [
                'Content-Type' => 'text/csv; charset=utf-8',
                'Content-Disposition' => HeaderUtils::makeDisposition('attachment', $quote->round->number.'.csv'),
            ]);
    }

    #[Route('/files/{id}', name: 'supplier_quote_file', requirements: ['id' => '\d+'], methods: ['GET'])]
    public function attachment(string $token, int $id, Request $request): Response
    {
        foreach ($this->quote($token, $request)?->round->files() ?? [] as $file) {
            if ($file->id === $id) {
                return RoundsController::download($file);
            }
        }

        return $this->page(null, Fields::none());
    }

    /** Null for a link that is foreign or has ended: the page says the same of both. */
    private function quote(string $token, Request $request): ?Quote
    {
        return $this->link->take($token, $request, function () use ($token): ?Quote {
            $quote = $this->rounds->byToken($token);

            return null === $quote || $quote->round->isDraft() || $this->clock->now() > $quote->round->linksEnd()
                ? null
                : $quote;
        });
    }

    private function page(?Quote $quote, Fields $fields): Response
    {
        return $this->render(
            'supplier_page/quote.html.twig',
            ['quote' => $quote, 'fields' => $fields, 'business' => $this->business->get()],
            $this->link->answer(null !== $quote, $fields),
        );
    }
}
