<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Dock;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Receiving\Gs1\Elements;
use TallBarrel\Core\Receiving\Gs1\ElementString;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\SeenSites;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Store\Item\CalledItem;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Bin;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Store\Stock\ShelfPlaces;
use TallBarrel\Store\Stock\StockPlace;
use TallBarrel\Store\Stock\WaitingAtDock;
use TallBarrel\Work\Receiving\PutAway;

/** From the dock to the shelf, by scanning first the goods and then the bin. */
#[Route('/dock/put-away'), IsGranted('ROLE_RECEIVE')]
final class PutAwayController extends AbstractController
{
    private const MOST = 200;

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly ShelfPlaces $places,
        private readonly PutAway $putAway,
        private readonly CalledItem $items,
        private readonly Sites $sites,
        private readonly SeenSites $seen,
        private readonly Shell $shell,
        private readonly ClockInterface $clock,
    ) {
    }

    #[Route('', name: 'put_away', methods: ['GET'])]
    public function list(Request $request): Response
    {
        return $this->page(Fields::query($request));
    }

    /** A scan of goods chooses their row; one of a bin puts away what was chosen. */
    #[Route('', name: 'put_away_scan', methods: ['POST'])]
    public function scan(Request $request, #[CurrentUser] Person $by): Response
    {
        $fields = Fields::of($request);
        $waiting = $this->waiting();
        $scan = $fields->text('scan', 200);
        $chosen = $this->keyed($waiting, $fields->text('row', 120));
        $scanned = $fields->attempt('scan', fn (): ?WaitingAtDock => $this->scanned($waiting, $scan));
        if (null !== $scanned) {
            return $this->redirectToRoute('put_away', ['row' => $scanned->key()]);
        }
        if ($fields->isGood() && null === $chosen) {
            $fields->refuse('scan', sprintf('Nothing at the dock is “%s”.', $scan));
        }
        $units = null === $chosen ? null : $fields->quantity('units', $fields->text('units', 30));
        if ($fields->isGood() && null !== $chosen && null !== $units) {
            $item = $this->entities->find(Item::class, $chosen->item) ?? throw new \LogicException('No such item.');
            $from = StockPlace::read($chosen->place(), $this->sites->find(...));
            try {
                $bin = $fields->attempt('scan', fn () => $this->putAway->put($item, $from, $units,
                    '' === $scan ? $chosen->bin : $scan, $by, $fields->text('key', 40)));
                if (null !== $bin) {
                    $this->addFlash('fine', sprintf('%s %s of %s: %s.', $units->strippedOfTrailingZeros(),
                        $item->unit->symbol(), $item->code, $bin->code));

                    return $this->redirectToRoute('put_away');
                }
            } catch (Refused $refused) {
                $fields->refuse('units', $refused->getMessage());
            }
        }
        if (null !== $chosen && null === $units && $fields->isGood()) {
            $fields->refuse('units', 'Say how many.');
        }

        return $this->page($fields);
    }

    /** What stands on a shelf already was carried to another. */
    #[Route('/move', name: 'put_away_move', methods: ['POST'])]
    public function move(Request $request, #[CurrentUser] Person $by): Response
    {
        $fields = Fields::of($request);
        $item = $fields->attempt('item', fn (): Item => $this->items->of($fields->text('item', 120)));
        $site = $this->sites->find((int) $fields->text('site'));
        if (null === $site || !$this->seen->has($site->id)) {
            $fields->refuse('site', 'Choose a site.');
        }
        $bin = null === $item || null === $site || !$fields->isGood() ? null : $fields->attempt(
            'bin',
            fn (): Bin => $this->putAway->move($item, $site, $fields->text('lot', 40), $fields->text('bin', 20), $by),
        );
        if (null === $bin || null === $item) {
            return $this->page($fields);
        }
        $this->addFlash('fine', sprintf('%s lies in %s.', $item->code, $bin->code));

        return $this->redirectToRoute('put_away');
    }

    /**
     * @param list<WaitingAtDock> $waiting
     *
     * @return WaitingAtDock|null null where it is none of their codes
     *
     * @throws InvalidValue if it is a symbol that cannot be
     */
    private function scanned(array $waiting, string $scan): ?WaitingAtDock
    {
        $lot = '';
        $code = $scan;
        if (ElementString::isOne($scan)) {
            $symbol = ElementString::read($scan, $this->clock->now());
            $lot = $symbol->lot;
            $code = $symbol->gtin->digits ?? $symbol->elements[Elements::OUR_CODE] ?? '';
        }
        try {
            $item = '' === $code ? null : $this->items->of($code);
        } catch (InvalidValue) {
            return null;
        }
        foreach ($waiting as $one) {
            if ($one->item === $item?->id && ('' === $lot || $lot === $one->lot)) {
                return $one;
            }
        }

        return null;
    }

    /** @return list<WaitingAtDock> */
    private function waiting(): array
    {
        return array_values(array_filter(
            $this->places->waiting($this->shell->site(), self::MOST),
            fn (WaitingAtDock $one): bool => $this->seen->has($one->siteId),
        ));
    }

    /** @param list<WaitingAtDock> $waiting */
    private function keyed(array $waiting, string $key): ?WaitingAtDock
    {
        foreach ($waiting as $one) {
            if ($one->key() === $key) {
                return $one;
            }
        }

        return null;
    }

    private function page(Fields $fields): Response
    {
        $waiting = $this->waiting();

        return $this->render(
            'dock/put_away.html.twig',
            [
                'waiting' => $waiting,
                'chosen' => $this->keyed($waiting, $fields->text('row', 120)),
                'site' => $this->shell->site(),
                'nonce' => bin2hex(random_bytes(8)),
                'fields' => $fields,
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }
}
