<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Suppliers;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Form\FormInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Desk\Drawing\PriceLine;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\AdjustmentRows;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\Form\Forms;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Offer\OfferPrices;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Sourcing\ChangeOffer;
use TallBarrel\Work\Sourcing\OfferDetails;

/** One offer: all that a supplier asks for an item, what it cost before, and who else sells it. */
#[Route('/suppliers/{code}/offers')]
#[AboutMoney]
final class OfferController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly OfferPrices $prices,
        private readonly ChangeOffer $change,
        private readonly Forms $forms,
        private readonly ClockInterface $clock,
        private readonly Connection $connection,
    ) {
    }

    #[Route('/new', name: 'offer_new', methods: ['GET']), IsGranted('ROLE_BUY')]
    public function blank(string $code, Request $request): Response
    {
        $details = new OfferDetails();
        $details->item = $request->query->getString('item');

        return $this->page($this->supplier($code), null, $this->form(null, $details), $details->item);
    }

    #[Route('/new', name: 'offer_begin', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function begin(string $code, Request $request, #[CurrentUser] Person $person): Response
    {
        $supplier = $this->supplier($code);
        $details = new OfferDetails();
        $form = $this->form(null, $details)->handleRequest($request);
        $offer = Forms::attempt(
            $form,
            fn (Problems $problems): ?Offer => $this->change->begin($supplier, $details, $problems, $person),
        );
        if (null === $offer) {
            return $this->page($supplier, null, $form, $details->item);
        }
        $this->addFlash('fine', sprintf('%s can be bought from %s.', $offer->item->name(), $supplier->name()));

        return $this->redirectToRoute('offer', ['code' => $code, 'id' => $offer->id]);
    }

    #[Route('/{id}', name: 'offer', requirements: ['id' => '\d+'], methods: ['GET'])]
    public function show(string $code, int $id): Response
    {
        $offer = $this->find($code, $id);

        return $this->page($offer->supplier, $offer, $this->form($offer, $this->details($offer)));
    }

    #[Route('/{id}', name: 'offer_save', requirements: ['id' => '\d+'], methods: ['POST']), IsGranted('ROLE_BUY')]
    public function save(string $code, int $id, Request $request, #[CurrentUser] Person $person): Response
    {
        $offer = $this->find($code, $id);
        $details = $this->details($offer);
        $form = $this->form($offer, $details)->handleRequest($request);
        $version = $request->request->getInt('version');
        Forms::attempt(
            $form,
            fn (Problems $problems) => $this->change->change($offer, $details, $version, $person, $problems),
        );
        if (!$form->isSubmitted() || !$form->isValid()) {
            return $this->page($offer->supplier, $offer, $form);
        }
        $this->addFlash('fine', sprintf('The offer of %s is saved.', $offer->item->name()));

        return $this->redirectToRoute('offer', ['code' => $code, 'id' => $id]);
    }

    /** Charges and allowances that it brings to each order it stands on. */
    #[Route('/{id}/charges', name: 'offer_charges', requirements: ['id' => '\d+'], methods: ['POST']),
        IsGranted('ROLE_BUY')]
    public function charges(string $code, int $id, Request $request, #[CurrentUser] Person $person): Response
    {
        $offer = $this->find($code, $id);
        $fields = Fields::of($request);
        $charges = AdjustmentRows::read($fields, $offer->supplier->tax()) ?? [];
        if (!$fields->isGood()) {
            return $this->page($offer->supplier, $offer, $this->form($offer, $this->details($offer)), '', $fields);
        }
        $this->change->bring($offer, $charges, $person);
        $this->addFlash('fine', 'Orders with it begin with these charges.');

        return $this->redirectToRoute('offer', ['code' => $code, 'id' => $id]);
    }

    private function details(Offer $offer): OfferDetails
    {
        return OfferDetails::of($offer, $this->clock->now()->setTime(0, 0));
    }

    /** @return FormInterface<mixed> */
    private function form(?Offer $offer, OfferDetails $details): FormInterface
    {
        $item = $offer->item ?? $this->change->item($details->item);

        return $this->forms->of(OfferType::class, $details, [
            'pack' => $offer?->packName,
            'stock_unit' => $item?->unit->symbol() ?? 'stock units',
            'units' => $item?->unit->convertible() ?? Unit::cases(),
        ]);
    }

    /**
     * @param FormInterface<mixed> $form
     * @param string               $typed what was typed for the item of a new offer
     */
    private function page(
        Supplier $supplier,
        ?Offer $offer,
        FormInterface $form,
        string $typed = '',
        ?Fields $fields = null,
    ): Response {
        $history = null === $offer ? [] : $this->prices->of($offer);
        $item = $offer->item ?? $this->change->item($typed);
        /** @var list<array{day: string, price: string, number: string, packs: string}> $paid */
        $paid =
            null === $offer
                ? []
                : $this->connection->fetchAllAssociative(
                    'SELECT DATE(o.sent_at) day, l.price, o.number, l.packs FROM order_line l
                        JOIN purchase_order o ON o.id = l.order_id WHERE l.offer_id = ? AND o.sent_at IS NOT NULL
                        ORDER BY o.sent_at DESC, l.id DESC LIMIT 40',
                    [$offer->id],
                );

        return $this->render(
            'suppliers/offer.html.twig',
            [
                'supplier' => $supplier,
                'offer' => $offer,
                'item' => $item,
                'form' => $form->createView(),
                'fields' => $fields ?? Fields::none(),
                'unitPrices' => null === $offer
                        ? []
                        : array_map(
                            static fn (array $step): array => [
                                $step['from']->multipliedBy($offer->rule()->pack->content),
                                $step['price']->toFloat() / $offer->rule()->pack->content->toFloat(),
                            ],
                            $offer->prices()->byPacks(),
                        ),
                'history' => $history,
                'paid' => $paid,
                'line' => null === $offer
                        ? null
                        : PriceLine::of($history, $offer->listPrices(), $paid, $this->clock->now()->setTime(0, 0)),
                'others' => null === $item
                        ? []
                        : array_values(
                            array_filter(
                                $this->entities
                                    ->getRepository(Offer::class)
                                    ->findBy(['item' => $item], ['rank' => 'ASC']),
                                static fn (Offer $other): bool => $other !== $offer,
                            ),
                        ),
                'items' => null !== $offer
                        ? []
                        : $this->connection->fetchFirstColumn(
                            "SELECT CONCAT(code, ' · ', name) FROM item WHERE service = 0 ORDER BY code LIMIT 2000",
                        ),
            ],
            new Response(status: $form->isSubmitted() || null !== $fields ? 422 : 200),
        );
    }

    private function supplier(string $code): Supplier
    {
        return $this->entities->getRepository(Supplier::class)->findOneBy(['code' => $code]) ??
            throw $this->createNotFoundException(sprintf('There is no supplier %s.', $code));
    }

    private function find(string $code, int $id): Offer
    {
        $offer = $this->entities->find(Offer::class, $id);

        return null !== $offer && $offer->supplier->code === $code
            ? $offer
            : throw $this->createNotFoundException('There is no such offer.');
    }
}
