<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Stock;

use Brick\Math\BigDecimal;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Receiving\ShelfCount;
use TallBarrel\Core\Receiving\ShelfPick;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\NumbersInAddresses;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Store\Business\ReasonKind;
use TallBarrel\Store\Business\Reasons;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Store\Stock\Shelf;
use TallBarrel\Store\Stock\ShelfRow;
use TallBarrel\Work\Receiving\CountShelf;

/** Counting what stands on the shelves: blind at first, then what differs is shown with its value, then booked. */
#[Route('/stock/count'), IsGranted('ROLE_RECEIVE')]
final class ShelfController extends AbstractController
{
    private const SHOWN = 200;

    public function __construct(
        private readonly Shelf $shelf,
        private readonly Sites $sites,
        private readonly Shell $shell,
        private readonly Reasons $reasons,
        private readonly ClockInterface $clock,
    ) {
    }

    #[Route('', name: 'shelf_count', methods: ['GET'], priority: 2)]
    public function choose(Request $request): Response
    {
        return $this->page(
            $this->sites->find(NumbersInAddresses::read($request, 'site'))
                ?? $this->shell->site()
                ?? $this->sites->all()[0],
            trim($request->query->getString('words')),
            Fields::query($request),
        );
    }

    /** Shows what differs; with the other button, books it. */
    #[Route('', name: 'shelf_counted', methods: ['POST'], priority: 2)]
    public function counted(Request $request, CountShelf $count, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $site = $this->sites->find((int) $fields->text('site')) ?? $this->sites->all()[0];
        $words = $fields->text('words', 60);
        $different = $this->different($site, $words, $fields);
        if ('book' !== $fields->text('do') || !$fields->isGood()) {
            return $this->page($site, $words, $fields, $different);
        }
        $differing = $looked = [];
        foreach ($this->rows($site, $words, $fields) as $row) {
            if (isset($different[$row->key()])) {
                $looked[] = $row;
            }
            if (isset($different[$row->key()]) && !$different[$row->key()]->isRight()) {
                $differing[] = [$row, $different[$row->key()]->counted];
            }
        }
        try {
            $many = $count->book(
                $site,
                $looked,
                $differing,
                $fields->text('reason', 60),
                $person,
                $fields->text('key', 30),
            );
            $this->addFlash('fine', sprintf(
                '%d counted, %d of them put right.',
                count($different),
                $many,
            ));

            return $this->redirectToRoute('shelf_count', [
                'site' => $site->id, 'words' => $words, 'pick' => self::pick($fields)->value,
            ]);
        } catch (Refused $refused) {
            $fields->refuse('reason', $refused->getMessage());

            return $this->page($site, $words, $fields, $this->different($site, $words, $fields));
        }
    }

    /** @return list<ShelfRow> */
    private function rows(Site $site, string $words, Fields $fields): array
    {
        return $this->shelf->of($site, $words, self::pick($fields), $this->clock->now(), self::SHOWN);
    }

    private static function pick(Fields $fields): ShelfPick
    {
        return ShelfPick::tryFrom($fields->text('pick', 10)) ?? ShelfPick::All;
    }

    /**
     * What was counted against what stands there; whatever moved since the page was opened is to be counted anew.
     *
     * @return array<string, ShelfCount> by the row's key
     */
    private function different(Site $site, string $words, Fields $fields): array
    {
        [$typed, $seen] = [$fields->each('counted'), $fields->each('last')];
        $counts = [];
        foreach ($this->rows($site, $words, $fields) as $n => $row) {
            $units = $fields->quantity('counted-'.$n, $typed[$n] ?? '');
            if (null === $units) {
                continue;
            }
            if (($seen[$n] ?? '') !== $row->key().'|'.$row->last) {
                $fields->refuse(
                    'counted-'.$n,
                    sprintf('%s moved while you were counting; count it once more.', $row->code),
                );
            }
            $counts[$row->key()] = new ShelfCount($row->stands, $units);
        }

        return $counts;
    }

    /** @param array<string, ShelfCount>|null $different null while nothing is counted */
    private function page(Site $site, string $words, Fields $fields, ?array $different = null): Response
    {
        $rows = $this->rows($site, $words, $fields);
        $value = BigDecimal::zero();
        foreach ($rows as $row) {
            $count = $different[$row->key()] ?? null;
            $value = $value->plus(null === $count ? 0 : $count->difference()->multipliedBy($row->cost));
        }

        return $this->render(
            'stock/count.html.twig',
            [
                'rows' => $rows,
                'most' => self::SHOWN,
                'place' => $site,
                'words' => $words,
                'pick' => self::pick($fields),
                'picks' => ShelfPick::cases(),
                'fields' => $fields,
                'different' => $different,
                'wrong' => count(array_filter(
                    $different ?? [],
                    static fn (ShelfCount $count): bool => !$count->isRight(),
                )),
                'value' => $value,
                'reasons' => $this->reasons->words(ReasonKind::Adjustment),
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }
}
