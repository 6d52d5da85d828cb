<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Stock;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Receiving\LotFacts;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\SeenSites;
use TallBarrel\Store\Business\ReasonKind;
use TallBarrel\Store\Business\Reasons;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Store\Stock\InInspection;
use TallBarrel\Store\Stock\LotTrace;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\SetApart;
use TallBarrel\Store\Stock\StockPlace;
use TallBarrel\Store\Stock\StockState;
use TallBarrel\Work\Receiving\DescribeLot;
use TallBarrel\Work\Receiving\InspectGoods;
use TallBarrel\Work\Receiving\PutStockRight;

/** Stock that is not as the books say, or not yet to be sold. */
final class PutRightController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Sites $sites,
        private readonly SeenSites $seen,
        private readonly SetApart $apart,
        private readonly InInspection $inspected,
        private readonly LotTrace $lots,
        private readonly ClockInterface $clock,
        private readonly InspectGoods $inspect,
        private readonly Reasons $reasons,
        private readonly ItemPage $page,
    ) {
    }

    /** What may not be sold yet, or no longer. */
    #[Route('/dock/set-apart', name: 'set_apart', methods: ['GET']), IsGranted('ROLE_RECEIVE')]
    public function apart(): Response
    {
        return $this->list(Fields::none());
    }

    /** From the list: inspected, set free, held back, scrapped. */
    #[Route('/dock/set-apart', name: 'set_apart_act', methods: ['POST']), IsGranted('ROLE_RECEIVE')]
    public function act(
        Request $request,
        PutStockRight $right,
        #[CurrentUser] Person $person,
    ): Response {
        $fields = Fields::of($request);
        $item = $this->item($fields->text('item', 40));
        if ('inspect' !== $fields->text('do')) {
            $this->put($item, $fields, $right, $person);
        } else {
            $this->attempt($fields, function () use ($item, $fields, $person): void {
                $bad = $fields->text('bad', 9);
                if (!ctype_digit($bad)) {
                    throw InvalidValue::because(sprintf('“%s” is no number of bad ones; expected 0 or more.', $bad));
                }
                $place = $this->place($fields);
                $found = $this->inspect->inspect($item, $place, (int) $bad, $person, $fields->text('key', 40));
                $this->addFlash($found->accepted ? 'fine' : 'short', sprintf(
                    '%s: %d of %d looked at bad, %s.',
                    $item->code,
                    $found->bad,
                    $found->looked,
                    $found->accepted ? 'taken' : 'refused; all of it is held back',
                ));
            });
        }

        return $fields->isGood() ? $this->redirectToRoute('set_apart') : $this->list($fields);
    }

    /** From the item's page. */
    #[Route('/items/{code}/put-right', name: 'item_put_right', requirements: ['code' => '.+'], methods: ['POST'],
        priority: 3), IsGranted('ROLE_RECEIVE'),]
    public function putRight(
        string $code,
        Request $request,
        PutStockRight $right,
        #[CurrentUser] Person $person,
    ): Response {
        $fields = Fields::of($request);
        $item = $this->item($code);
        $this->put($item, $fields, $right, $person);

        return $fields->isGood()
            ? $this->redirectToRoute('item', ['code' => $item->code])
            : $this->render(
                'stock/item.html.twig',
                ['rightFields' => $fields] + $this->page->of($item),
                new Response(status: 422),
            );
    }

    /** One lot: what is known of it, where it stands, where it came from and went. */
    #[Route('/items/{code}/lot', name: 'item_lot', requirements: ['code' => '.+'], methods: ['GET'], priority: 4)]
    public function lot(string $code, Request $request): Response
    {
        return $this->lotPage($this->item($code), $request->query->getString('number'), Fields::none());
    }

    #[Route('/items/{code}/lot', name: 'item_lot_act', requirements: ['code' => '.+'], methods: ['POST'], priority: 4),
        IsGranted('ROLE_RECEIVE'),]
    public function lotAct(
        string $code,
        Request $request,
        PutStockRight $right,
        DescribeLot $describe,
        #[CurrentUser] Person $person,
    ): Response {
        $fields = Fields::of($request);
        $item = $this->item($code);
        $number = $fields->text('number', 40);
        if ('describe' !== $fields->text('do')) {
            $this->put($item, $fields, $right, $person);
        } else {
            [$expires, $made] = [
                $fields->day('expires', $fields->text('expires')), $fields->day('made', $fields->text('made')),
            ];
            if ($fields->isGood()) {
                $fields->apply('facts', fn () => $describe->describe(
                    $item,
                    LotFacts::of($number, $expires, $made, $fields->text('origin', 60), null, $this->clock->now()),
                    $fields->text('raw', 60),
                    $fields->text('theirs', 60),
                    $person,
                ));
            }
        }

        return $fields->isGood()
            ? $this->redirectToRoute('item_lot', ['code' => $item->code, 'number' => $number])
            : $this->lotPage($item, $number, $fields);
    }

    private function lotPage(Item $item, string $number, Fields $fields): Response
    {
        $facts = $this->lots->facts($item, $number)
            ?? throw $this->createNotFoundException(sprintf('Nothing of lot %s was ever here.', $number));
        $stands = [];
        foreach ($this->lots->stands($item, $number) as $row) {
            $state = StockState::from($row['state']);
            $stands[] = [
                'key' => StockPlace::keyOf($row['site_id'], $row['state'], $number),
                'nonce' => bin2hex(random_bytes(8)),
                'state' => $state,
                'mine' => $this->seen->has($row['site_id']) && StockState::OnItsWay !== $state,
            ] + $row;
        }

        return $this->render(
            'stock/lot.html.twig',
            [
                'item' => $item,
                'lot' => $facts,
                'stands' => $this->seen->only($stands),
                'movements' => array_map(
                    static fn (array $row): array => ['words' => MovementKind::from($row['kind'])->words()] + $row,
                    $this->seen->only($this->lots->movements($item, $number)),
                ),
                'reasons' => $this->reasons->words(ReasonKind::Adjustment),
                'fields' => $fields,
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    private function put(Item $item, Fields $fields, PutStockRight $right, Person $person): void
    {
        $units = $fields->quantity('units', $fields->text('units', 20));
        $reason = trim($fields->text('reason', 40).' '.$fields->text('words', 100));
        if (null === $units && $fields->isGood()) {
            $fields->refuse('units', 'Say how many.');
        }
        if (null === $units || !$fields->isGood()) {
            return;
        }
        $this->attempt($fields, function () use ($item, $fields, $right, $person, $units, $reason): void {
            $place = $this->place($fields);
            $key = $fields->text('key', 40);
            match ($fields->text('do')) {
                'count' => $right->countAs($item, $place, self::seen($fields), $units, $reason, $person, $key),
                'scrap' => $right->scrap($item, $place, $units, $reason, $person, $key),
                'hold' => $right->become($item, $place, StockState::Held, $units, $reason, $person, $key),
                'free' => $right->become($item, $place, StockState::Available, $units, $reason, $person, $key),
                'inspect' => $right->become($item, $place, StockState::InInspection, $units, $reason, $person, $key),
                default => throw new Refused('Choose what is to be done.'),
            };
            $this->addFlash('fine', sprintf('%s: booked.', $item->code));
        });
    }

    private function attempt(Fields $fields, callable $act): void
    {
        try {
            $act();
        } catch (Refused|InvalidValue $refused) {
            $fields->refuse('units', $refused->getMessage());
        }
    }

    /**
     * What stood there when the page was opened.
     *
     * @throws InvalidValue
     */
    private static function seen(Fields $fields): BigDecimal
    {
        $seen = strstr($fields->text('place', 90), '@', true);

        return is_string($seen) && 1 === preg_match('/^-?\d{1,15}(\.\d{1,6})?$/', $seen)
            ? BigDecimal::of($seen)
            : throw InvalidValue::because('Choose where it stands.');
    }

    /** @throws InvalidValue */
    private function place(Fields $fields): StockPlace
    {
        $parts = explode('@', $fields->text('place', 90), 2);
        $place = StockPlace::read($parts[count($parts) - 1], fn (int $id) => $this->sites->find($id));
        $this->seen->mustHave($place->site->id);

        return $place;
    }

    private function item(string $code): Item
    {
        return $this->entities->getRepository(Item::class)->findOneBy(['code' => $code])
            ?? throw $this->createNotFoundException(sprintf('There is no item %s.', $code));
    }

    private function list(Fields $fields): Response
    {
        $rows = [];
        foreach ($this->apart->at(null) as $row) {
            if (!$this->seen->has($row['site_id'])) {
                continue;
            }
            $item = $this->entities->find(Item::class, $row['item']) ?? throw new \LogicException('No such item.');
            $state = StockState::from($row['state']);
            $isSample = StockState::InInspection === $state && $item->inspection()->isSample();
            $place = StockPlace::read(
                StockPlace::keyOf($row['site_id'], $row['state'], $row['lot']),
                $this->sites->find(...),
            );
            $rows[] = [
                'key' => $place->key(),
                'nonce' => bin2hex(random_bytes(8)),
                'of' => $item,
                'state' => $state,
                'plan' => $isSample ? $this->inspect->plan($item, $place, BigDecimal::of($row['units'])) : null,
                'free' => StockState::InInspection === $state
                    ? $this->inspected->freeOn($item->id, $row['since'], $this->clock->now()->setTime(0, 0))
                    : null,
                'stopped' => $isSample && $this->inspect->switching($item, $place)->isStopped,
            ] + $row;
        }

        return $this->render(
            'dock/set_apart.html.twig',
            [
                'rows' => $rows,
                'reasons' => $this->reasons->words(ReasonKind::Adjustment),
                'fields' => $fields,
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }
}
