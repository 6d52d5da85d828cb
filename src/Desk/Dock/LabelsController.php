<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Dock;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\SeenSites;
use TallBarrel\Store\Dock\Receipt;
use TallBarrel\Store\Item\CalledItem;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Work\Receiving\Label;
use TallBarrel\Work\Receiving\LabelPrinter;
use TallBarrel\Work\Receiving\LabelSheet;
use TallBarrel\Work\Receiving\ProposeLabels;

/** Labels for what came, for an item, or for the bins of a site. */
final class LabelsController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly ProposeLabels $propose,
        private readonly CalledItem $items,
        private readonly Sites $sites,
        private readonly SeenSites $seen,
    ) {
    }

    #[Route('/labels', name: 'labels', methods: ['GET'])]
    public function show(Request $request): Response
    {
        return $this->page(Fields::query($request), $request);
    }

    /** A sheet of those that were chosen. */
    #[Route('/labels', name: 'labels_print', methods: ['POST'])]
    public function print(Request $request, LabelPrinter $printer): Response
    {
        $fields = Fields::of($request);
        $chosen = [];
        $many = $this->typed($fields, 'many');
        foreach ($this->labels($fields) as $n => [$label]) {
            if (($many[$n] ?? 0) > 0) {
                $chosen[] = [$label, $many[$n]];
            }
        }
        $used = $this->typed($fields, 'used')[0] ?? 0;
        if ($fields->isGood() && [] === $chosen) {
            $fields->refuse('do', 'Say of which label how many.');
        }
        if (!$fields->isGood()) {
            return $this->page($fields, $request);
        }
        $sheet = LabelSheet::tryFrom($fields->text('sheet')) ?? LabelSheet::ThreeByEight;

        return new Response($printer->print($chosen, $sheet, $used), headers: [
            'Content-Type' => 'application/pdf',
            'Content-Disposition' => 'inline; filename="labels.pdf"',
        ]);
    }

    /** @return array<int, int> */
    private function typed(Fields $fields, string $name): array
    {
        $read = [];
        foreach ($fields->each($name) as $n => $typed) {
            $read[$n] = $fields->attempt($name.'-'.$n, static fn (): int => match (true) {
                '' === $typed => 0,
                !ctype_digit($typed) || (int) $typed > ProposeLabels::MOST => throw InvalidValue::because(
                    sprintf('“%s”; expected a whole number up to %d.', $typed, ProposeLabels::MOST),
                ),
                default => (int) $typed,
            }) ?? 0;
        }

        return $read;
    }

    /** @return list<array{Label, int}> */
    private function labels(Fields $fields): array
    {
        $receipt = $fields->text('receipt', 20);
        if ('' !== $receipt) {
            $receipt = $this->entities->getRepository(Receipt::class)->findOneBy(['number' => $receipt])
                ?? throw $this->createNotFoundException(sprintf('There is no receipt %s.', $receipt));
            $this->mustBeSeen($receipt->delivery->site->id);

            return $this->propose->forReceipt($receipt);
        }
        $site = $this->sites->find((int) $fields->text('bins'));
        if (null !== $site) {
            $this->mustBeSeen($site->id);

            return $this->propose->forBins($site);
        }
        $typed = $fields->text('item', 120);
        $item = '' === $typed ? null : $fields->attempt('item', fn () => $this->items->of($typed));

        return null === $item ? [] : $this->propose->forItem($item);
    }

    private function mustBeSeen(int $site): void
    {
        $this->seen->mustHave($site);
    }

    private function page(Fields $fields, Request $request): Response
    {
        $labels = $this->labels($fields);

        return $this->render(
            'dock/labels.html.twig',
            ['labels' => $labels, 'sheets' => LabelSheet::cases(), 'fields' => $fields],
            new Response(status: $fields->isGood() || $request->isMethod('GET') ? 200 : 422),
        );
    }
}
