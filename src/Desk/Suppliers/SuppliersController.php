<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Suppliers;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Form\FormInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Drawing\LeadTimeStrip;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\AdjustmentRows;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\Form\Forms;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Offer\Offers;
use TallBarrel\Store\Order\OrderRow;
use TallBarrel\Store\Order\OrderRows;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\PlanningData;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Store\Supplier\SupplierRecord;
use TallBarrel\Work\Keeping\ChangeSupplier;
use TallBarrel\Work\Keeping\SupplierDetails;

#[Route('/suppliers')]
#[AboutMoney]
final class SuppliersController extends AbstractController
{
    private const LISTED = 200;

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly PlanningData $data,
        private readonly OrderRows $orders,
        private readonly Audit $audit,
        private readonly SupplierRecord $records,
        private readonly ClockInterface $clock,
        private readonly Offers $offers,
        private readonly Forms $forms,
    ) {
    }

    #[Route('', name: 'suppliers', methods: ['GET'])]
    public function list(Request $request): Response
    {
        $archived = '' !== $request->query->getString('archived');
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
            ->where($archived ? 's.archivedOn IS NOT NULL' : 's.archivedOn IS NULL')
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
            'archived' => $archived,
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
        $supplier = $this->find($code);

        return $this->page($supplier, $this->form($supplier), trim($request->query->getString('offers')));
    }

    #[Route('/{code}', name: 'supplier_save', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function save(
        string $code,
        Request $request,
        ChangeSupplier $change,
        #[CurrentUser] Person $person,
    ): Response {
        $supplier = $this->find($code);
        $details = SupplierDetails::of($supplier);
        $form = $this->form($supplier, $details)->handleRequest($request);
        $version = $request->request->getInt('version');
        Forms::attempt(
            $form,
            static fn (Problems $problems) => $change->change($supplier, $details, $version, $person, $problems),
        );
        if (!$form->isSubmitted() || !$form->isValid()) {
            return $this->page($supplier, $form);
        }
        $this->addFlash('fine', $supplier->name().' is saved.');

        return $this->redirectToRoute('supplier', ['code' => $code]);
    }

    /** Charges and allowances that every order to them begins with. */
    #[Route('/{code}/charges', name: 'supplier_charges', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function charges(
        string $code,
        Request $request,
        ChangeSupplier $change,
        #[CurrentUser] Person $person,
    ): Response {
        $supplier = $this->find($code);
        $fields = Fields::of($request);
        $adjustments = AdjustmentRows::read($fields, $supplier->tax()) ?? [];
        if (!$fields->isGood()) {
            return $this->page($supplier, $this->form($supplier), '', $fields);
        }
        $change->adjust($supplier, $adjustments, $person);
        $this->addFlash('fine', 'Their next orders begin with these charges.');

        return $this->redirectToRoute('supplier', ['code' => $code]);
    }

    /** Bought from no longer, or again. */
    #[Route('/{code}/{act}', name: 'supplier_act', requirements: ['act' => 'archive|take-up'], methods: ['POST']),
        IsGranted('ROLE_BUY')]
    public function act(string $code, string $act, ChangeSupplier $change, #[CurrentUser] Person $person): Response
    {
        $supplier = $this->find($code);
        try {
            if ('archive' === $act) {
                $change->archive($supplier, $person);
                $this->addFlash('fine', $supplier->name().' is archived: nothing is bought there any more.');
            } else {
                $change->takeUp($supplier, $person);
            }
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }

        return $this->redirectToRoute('supplier', ['code' => $code]);
    }

    /** @return FormInterface<mixed> */
    private function form(Supplier $supplier, ?SupplierDetails $details = null): FormInterface
    {
        $others = $this->entities->getRepository(Supplier::class)->findBy([], ['name' => 'ASC']);

        return $this->forms->of(SupplierType::class, $details ?? SupplierDetails::of($supplier), [
            'suppliers' => array_values(array_filter($others, static fn (Supplier $one): bool => $one !== $supplier)),
            'people' => $this->entities->getRepository(Person::class)->findBy([], ['name' => 'ASC']),
        ]);
    }

    /** @param FormInterface<mixed> $form */
    private function page(
        Supplier $supplier,
        FormInterface $form,
        string $words = '',
        ?Fields $fields = null,
    ): Response {
        $offers = $this->offers->of($supplier, $words, self::LISTED);
        $behaviour = $this->data->suppliers([$supplier->id])[$supplier->id];
        $promises = array_count_values(array_map(static fn (Offer $offer): int => $offer->leadDays(), $offers));
        arsort($promises);

        return $this->render(
            'suppliers/supplier.html.twig',
            [
                'supplier' => $supplier,
                'form' => $form->createView(),
                'fields' => $fields ?? Fields::none(),
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
            ],
            new Response(status: $form->isSubmitted() || false === $fields?->isGood() ? 422 : 200),
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
