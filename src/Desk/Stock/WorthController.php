<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Stock;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use TallBarrel\Core\Day;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\SeenSites;
use TallBarrel\Desk\Shell\TakenFile;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Settle\ConsignedGoods;
use TallBarrel\Store\Stock\StockValue;

/** What the stock was worth at the end of a day. */
#[Route('/stock/worth')]
#[AboutMoney]
final class WorthController extends AbstractController
{
    public function __construct(
        private readonly StockValue $value,
        private readonly ConsignedGoods $consigned,
        private readonly SeenSites $seen,
        private readonly CurrentBusiness $business,
        private readonly ClockInterface $clock,
    ) {
    }

    #[Route('', name: 'stock_worth', methods: ['GET'])]
    public function show(Request $request): Response
    {
        [$day, $wrong] = $this->day($request);
        $category = $request->query->getString('category');
        $table = $sites = [];
        foreach ($this->seen->only($this->value->byCategory($day)) as $row) {
            $table[$row['category']][$row['site']] = $row['value'];
            $sites[$row['site']] = true;
        }
        $sites = array_keys($sites);
        sort($sites);

        return $this->render('stock/worth.html.twig', [
            'how' => $this->business->get()->valuing(),
            'theirs' => $this->consigned->worth(),
            'day' => $day,
            'wrong' => $wrong,
            'table' => $table,
            'sites' => $sites,
            'category' => isset($table[$category]) ? $category : null,
            'rows' => isset($table[$category])
                ? $this->seen->only($this->value->ofCategory($day, $category))
                : [],
            'today' => $this->clock->now()->setTime(0, 0),
        ], new Response(status: null === $wrong ? 200 : 422));
    }

    /** Every item, site, state and lot, to be taken away. */
    #[Route('.{format}', name: 'stock_worth_file', requirements: ['format' => TakenFile::FORMATS], methods: ['GET'])]
    public function takeOut(Request $request, string $format, TakenFile $file): Response
    {
        [$day, $wrong] = $this->day($request);
        if (null !== $wrong) {
            return new Response($wrong, 422, ['Content-Type' => 'text/plain; charset=utf-8']);
        }
        $name = 'stock-'.$day->format('Y-m-d');

        return $file->of($name, $this->lines($day), $format, 'Stock '.$day->format('Y-m-d'));
    }

    /** @return \Generator<int, list<string>> */
    private function lines(\DateTimeImmutable $day): \Generator
    {
        $columns = ['code', 'name', 'category', 'unit', 'site', 'state', 'lot', 'units', 'cost', 'value'];
        yield $columns;
        foreach ($this->value->everything($day) as $row) {
            if ($this->seen->has((int) $row['site_id'])) {
                yield array_map(static fn (string $column): string => (string) $row[$column], $columns);
            }
        }
    }

    /** @return array{\DateTimeImmutable, string|null} the day asked for, or today and what is wrong with it */
    private function day(Request $request): array
    {
        $today = $this->clock->now()->setTime(0, 0);
        $typed = $request->query->getString('day');
        if ('' === $typed) {
            return [$today, null];
        }
        try {
            $day = Day::read($typed);
        } catch (InvalidValue $invalid) {
            return [$today, $invalid->getMessage()];
        }

        return $day->format('Y-m-d') > $today->format('Y-m-d')
            ? [$today, sprintf('%s is a day to come.', $day->format('j M Y'))]
            : [$day, null];
    }
}
