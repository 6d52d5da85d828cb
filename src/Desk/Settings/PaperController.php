<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Ordering\PaperPart;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\NumberSeries;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Keeping\AskedNumbers;
use TallBarrel\Work\Keeping\SetPaper;

/** How papers are numbered, and the sentences that are kept for them. */
#[Route('/settings/paper')]
final class PaperController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly CurrentBusiness $business,
        private readonly SetPaper $set,
        private readonly ClockInterface $clock,
    ) {
    }

    #[Route('', name: 'paper', methods: ['GET'])]
    public function show(): Response
    {
        return $this->page(Fields::none());
    }

    #[Route('', name: 'paper_save', methods: ['POST']), IsGranted('ROLE_APPROVE')]
    public function save(Request $request, #[CurrentUser] Person $by): Response
    {
        $fields = Fields::of($request);
        $numbers = [];
        foreach (array_keys(NumberSeries::WORDS) as $name) {
            $next = $fields->text('next-'.$name, 9);
            // Where the number was left as it was shown, papers may have taken it meanwhile.
            $isLeft = '' !== $next && $next === $fields->text('was-'.$name, 9);
            $numbers[$name] = new AskedNumbers(
                $fields->text('prefix-'.$name, 8),
                $isLeft ? null : $fields->attempt('next-'.$name, static fn (): int => ctype_digit($next)
                    ? (int) $next
                    : throw InvalidValue::because(sprintf('“%s” is no number; expected one such as 1001.', $next))),
                '' !== $fields->text('year-'.$name),
            );
        }
        $sentences = preg_split('/\R/', is_string($fields->typed['sentences'] ?? null)
            ? $fields->typed['sentences']
            : '') ?: [];
        $parts = array_filter(
            PaperPart::cases(),
            static fn (PaperPart $part): bool => '' !== $fields->text('part-'.$part->value, 1),
        );
        $this->set->set($numbers, $sentences, array_values($parts), $fields->text('seen', 64), $by, $fields->problems);
        if (!$fields->isGood()) {
            return $this->page($fields);
        }
        $this->addFlash('fine', 'Saved. The next paper has the number that is shown.');

        return $this->redirectToRoute('paper');
    }

    private function page(Fields $fields): Response
    {
        $series = [];
        foreach (NumberSeries::WORDS as $name => $words) {
            $series[] = [
                'words' => $words,
                'of' => $this->entities->find(NumberSeries::class, $name) ?? new NumberSeries($name),
            ];
        }

        return $this->render(
            'settings/paper.html.twig',
            [
                'series' => $series,
                'year' => (int) $this->clock->now()->format('Y'),
                'parts' => PaperPart::cases(),
                'shown' => $this->business->get()->paperParts(),
                'sentences' => $this->business->get()->sentences(),
                'seen' => $this->set->standing(),
                'fields' => $fields,
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }
}
