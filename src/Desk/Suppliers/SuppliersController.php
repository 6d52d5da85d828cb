<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Suppliers;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Desk\Drawing\LeadTimeStrip;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Offer\Offers;
use TallBarrel\Store\Order\OrderRow;
use TallBarrel\Store\Order\OrderRows;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\PlanningData;
use TallBarrel\Store\Supplier\Address;
use TallBarrel\Store\Supplier\Contact;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Store\Supplier\SupplierRecord;

#[Route('/suppliers')]
final class SuppliersController extends AbstractController
{
    private const LISTED = 200;
    /** Roles of addresses by what their fields begin with. */
    private const ADDRESSES = ['' => Address::ORDER, 'pay_' => Address::PAY, 'ship_' => Address::SHIP_FROM];

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly PlanningData $data,
        private readonly OrderRows $orders,
        private readonly Audit $audit,
        private readonly SupplierRecord $records,
        private readonly ClockInterface $clock,
        private readonly Offers $offers,
    ) {
    }

    #[Route('', name: 'suppliers', methods: ['GET'])]
    public function list(): Response
    {
        $connection = $this->entities->getConnection();
        /** @var array<int, int> $open */
        $open = $connection->fetchAllKeyValue(
            'SELECT supplier_id, COUNT(DISTINCT order_id) FROM open_line GROUP BY supplier_id',
        );
        /** @var array<int, int> $offers */
        $offers = $connection->fetchAllKeyValue('SELECT supplier_id, COUNT(*) FROM offer GROUP BY supplier_id');
        $suppliers = $this->entities
            ->createQueryBuilder()
            ->select('s', 'c')
            ->from(Supplier::class, 's')
            ->leftJoin('s.contacts', 'c')
            ->orderBy('s.name')
            ->addOrderBy('c.id')
            ->getQuery()
            ->getResult();
        // Joined to the first they would multiply with the contacts.
        $this->entities
            ->createQueryBuilder()
            ->select('s', 'a')
            ->from(Supplier::class, 's')
            ->leftJoin('s.addresses', 'a')
            ->getQuery()
            ->getResult();

        return $this->render('suppliers/suppliers.html.twig', [
            'suppliers' => $suppliers,
            'behaviour' => $this->data->suppliers(),
            'open' => $open,
            'offers' => $offers,
        ]);
    }

    /** From scratch, or with the terms of a similar one. */
    #[Route('', name: 'supplier_new', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function begin(Request $request, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $code = strtoupper($fields->text('code', 20));
        try {
            if (1 !== preg_match('/^[A-Z0-9-]{2,20}$/', $code)) {
                throw InvalidValue::because(
                    sprintf('“%s” is not a code; expected 2 to 20 letters and digits, such as VETRASOL.', $code),
                );
            }
            if (null !== $this->entities->getRepository(Supplier::class)->findOneBy(['code' => $code])) {
                throw InvalidValue::because(sprintf('There is a supplier %s already.', $code));
            }
            $like = $this->entities->getRepository(Supplier::class)->findOneBy(['code' => $fields->text('like')]);
            $supplier = new Supplier(
                $code,
                $fields->text('name', 120),
                $fields->text('currency') ?: $like?->currency()->code ?? '',
            );
            if (null !== $like) {
                $supplier->beLike($like);
            }
            $this->entities->persist($supplier);
            $this->audit->note($person, 'supplier '.$code, null === $like ? 'Added' : 'Added like '.$like->code);
            $this->entities->flush();
        } catch (InvalidValue $invalid) {
            $this->addFlash('short', $invalid->getMessage());

            return $this->redirectToRoute(
                'suppliers',
                array_filter(
                    [
                        'code' => $code,
                        'name' => $fields->text('name'),
                        'currency' => $fields->text('currency'),
                        'like' => $fields->text('like'),
                    ],
                    static fn (string $typed): bool => '' !== $typed,
                ),
            );
        }
        $this->addFlash(
            'fine',
            sprintf('%s is there. What is still missing before it can be ordered from is marked.', $supplier->name()),
        );

        return $this->redirectToRoute('supplier', ['code' => $code]);
    }

    #[Route('/{code}', name: 'supplier', methods: ['GET'])]
    public function show(string $code, Request $request): Response
    {
        return $this->page($this->find($code), Fields::none(), trim($request->query->getString('offers')));
    }

    #[Route('/{code}', name: 'supplier_save', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function save(string $code, Request $request, #[CurrentUser] Person $person): Response
    {
        $supplier = $this->find($code);
        $fields = Fields::of($request);
        if ((int) $fields->text('version') !== $supplier->version()) {
            $fields->refuse(
                'supplier',
                'Somebody changed this supplier while you were typing. Your entries are still in the fields; look at '
                .'them once more and save again.',
            );
        } else {
            $this->apply($supplier, $fields);
        }
        if (!$fields->isGood()) {
            $this->entities->refresh($supplier);

            return $this->page($supplier, $fields);
        }
        $this->audit->note($person, 'supplier '.$supplier->code, 'Changed');
        $this->entities->flush();
        $this->addFlash('fine', $supplier->name().' is saved.');

        return $this->redirectToRoute('supplier', ['code' => $code]);
    }

    private function apply(Supplier $supplier, Fields $fields): void
    {
        $fields->apply('name', fn () => $supplier->rename($fields->text('name', 120)));
        $fields->apply(
            'email',
            fn () => '' === $fields->text('contact').$fields->text('email')
                ? null
                : $supplier->orderThrough(
                    $fields->text('contact', 80),
                    $fields->text('email', 180),
                    $fields->text('phone', 40),
                ),
        );
        foreach (self::ADDRESSES as $prefix => $role) {
            [$street, $postcode, $city, $country] = [
                $fields->text($prefix.'street', 120),
                $fields->text($prefix.'postcode', 20),
                $fields->text($prefix.'city', 80),
                $fields->text($prefix.'country'),
            ];
            if (Address::ORDER !== $role || '' !== $street.$city) {
                $fields->apply(
                    $prefix.'country',
                    fn () => $supplier->moveTo($street, $postcode, $city, $country, $role),
                );
            }
        }
        $percent = $fields->price('discount_percent', $fields->text('discount_percent'));
        $fields->apply('net_days', function () use ($supplier, $fields, $percent): void {
            $net = $fields->text('net_days');
            if ('' === $net) {
                return;
            }
            foreach ([$net, '' === $fields->text('discount_days') ? '0' : $fields->text('discount_days')] as $days) {
                if (1 !== preg_match('/^\d{1,3}$/', $days)) {
                    throw InvalidValue::notANumber($days, 'a number of days such as 30');
                }
            }
            $supplier->agreeTerms(
                PaymentTerms::net((int) $net, $percent ?? 0, (int) $fields->text('discount_days'))
                    ->fromEndOfMonth('1' === $fields->text('end_of_month'))
                    ->withDeposit($fields->price('deposit', $fields->text('deposit')) ?? 0)
                    ->inInstalments($fields->text('instalments', 120)),
            );
        });
        $fields->apply(
            'freight_kind',
            fn () => $supplier->reckonsFreight(
                $fields->text('freight_kind') ?: $supplier->freightKind(),
                $fields->text('freight_steps', 200),
                $fields->price('pallet_kg', $fields->text('pallet_kg')),
            ),
        );
        $supplier->ships($fields->price('freight', $fields->text('freight')), $supplier->fullLoadKg());
        $packs = $fields->text('minimum_packs', 6);
        if ('' !== $packs && 1 !== preg_match('/^\d{1,6}$/', $packs)) {
            $fields->refuse('minimum_packs', sprintf('“%s” is not a number of packs, such as 20.', $packs));
        }
        $supplier->takesAtLeast(
            $fields->price('minimum_kg', $fields->text('minimum_kg')),
            '' === $packs ? null : (int) $packs,
        );
        foreach ([Contact::QUOTES, Contact::ACCOUNTS] as $role) {
            $fields->apply(
                $role.'_email',
                fn () => $supplier->orderThrough(
                    $fields->text($role.'_contact', 80),
                    $fields->text($role.'_email', 180),
                    '',
                    $role,
                ),
            );
        }
        $fields->apply(
            'paid_through',
            fn () => $supplier->isPaidThrough(
                $this->entities->find(Supplier::class, (int) $fields->text('paid_through')),
            ),
        );
        $supplier->isBoughtFromBy($this->entities->find(Person::class, (int) $fields->text('buyer')));
        $supplier->jot($fields->text('notes', 2000));
        $supplier->wantsOrders('1' === $fields->text('wants_csv'));
        $fields->apply(
            'cut_off',
            fn () => $supplier->takesOrders(
                implode(',', array_keys($fields->each('weekdays'))),
                $fields->text('cut_off'),
            ),
        );
        $supplier->asksFor(
            $fields->price('minimum', $fields->text('minimum')),
            $fields->price('free_freight', $fields->text('free_freight')),
        );
        $fields->apply(
            'delivery_terms',
            fn () => $supplier->deliversAs(
                $fields->text('delivery_terms', 80),
                $fields->price('tax', $fields->text('tax')) ?? $supplier->taxPercent(),
            ),
        );
        $supplier->remember($fields->text('caution', 300), $fields->text('note', 500));
    }

    private function page(Supplier $supplier, Fields $fields, string $words = ''): Response
    {
        $offers = $this->offers->of($supplier, $words, self::LISTED);
        $behaviour = $this->data->suppliers([$supplier->id])[$supplier->id];
        $promises = array_count_values(array_map(static fn (Offer $offer): int => $offer->leadDays(), $offers));
        arsort($promises);

        return $this->render(
            'suppliers/supplier.html.twig',
            [
                'supplier' => $supplier,
                'fields' => $fields,
                'missing' => array_keys(
                    array_filter($supplier->facts(), static fn (string $fact): bool => '' === $fact),
                ),
                'offers' => $offers,
                'words' => $words,
                'offerCount' => $this->entities->getRepository(Offer::class)->count(['supplier' => $supplier]),
                'orders' => array_values(
                    array_filter(
                        $this->orders->open(),
                        static fn (OrderRow $order): bool => $order->supplierId === $supplier->id,
                    ),
                ),
                'behaviour' => $behaviour,
                'leads' => [] === $promises
                        ? null
                        : LeadTimeStrip::of($behaviour->leadTimesMet, (int) array_key_first($promises)),
                'record' => $this->records->of($supplier, $this->clock->now()),
                'others' => $this->entities->getRepository(Supplier::class)->findBy([], ['name' => 'ASC']),
                'people' => $this->entities->getRepository(Person::class)->findBy([], ['name' => 'ASC']),
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    private function find(string $code): Supplier
    {
        /** @var Supplier|null $supplier */
        $supplier = $this->entities
            ->createQuery(
                'SELECT s, c, a, p, b FROM '.
                    Supplier::class.
                    ' s LEFT JOIN s.contacts c LEFT JOIN s.addresses a LEFT JOIN s.paidThrough p LEFT JOIN s.buyer b
                    WHERE s.code = :code ORDER BY c.id, a.id',
            )
            ->setParameter('code', $code)
            ->getOneOrNullResult();

        return $supplier ??
            throw $this->createNotFoundException(sprintf('There is no supplier %s.', $code));
    }
}
