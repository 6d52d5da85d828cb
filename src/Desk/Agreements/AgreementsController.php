<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Agreements;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Quantity\ItemCode;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Agreement\Agreement;
use TallBarrel\Store\Agreement\Agreements;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\NumberSeries;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Supplier;

/** Long-term deals: what was promised, what has been drawn, and whether it will come to what was promised. */
#[Route('/agreements')]
#[AboutMoney]
final class AgreementsController extends AbstractController
{
    public function __construct(
        private readonly Agreements $agreements,
        private readonly EntityManagerInterface $entities,
        private readonly ClockInterface $clock,
        private readonly Audit $audit,
    ) {
    }

    #[Route('', name: 'agreements', methods: ['GET'])]
    public function list(): Response
    {
        return $this->listPage(Fields::none());
    }

    #[Route('', name: 'agreement_new', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function begin(Request $request, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $supplier = $this->entities->find(Supplier::class, (int) $fields->text('supplier'));
        $about = $fields->text('about', 160);
        $item =
            '' === $about
                ? null
                : $this->entities->getRepository(Item::class)->findOneBy(['code' => ItemCode::chosen($about)]);
        $category = '' === $about || null !== $item ? '' : $about;
        if (null === $supplier) {
            $fields->refuse('supplier', 'Choose whose agreement it is.');
        }
        if (
            '' !== $category
            && null === $this->entities->getRepository(Item::class)->findOneBy(['category' => $category])
        ) {
            $fields->refuse('about', sprintf('“%s” is neither an item code nor a category of items.', $about));
        }
        if ($fields->isGood() && null !== $supplier) {
            $agreement = new Agreement(
                NumberSeries::take($this->entities->getConnection(), NumberSeries::AGREEMENTS, $this->clock->now()),
                $supplier,
                $item,
                $category,
            );
            $this->apply($agreement, $fields);
            if ($fields->isGood()) {
                $this->entities->persist($agreement);
                $this->audit->note($person, $agreement->number, 'Agreed');
                $this->entities->flush();
                $this->addFlash(
                    'fine',
                    sprintf('%s with %s stands. Orders from now on draw on it.', $agreement->number, $supplier->name()),
                );

                return $this->redirectToRoute('agreement', ['number' => $agreement->number]);
            }
        }

        return $this->listPage($fields);
    }

    #[Route('/{number}', name: 'agreement', methods: ['GET'])]
    public function show(string $number): Response
    {
        return $this->page($this->find($number), Fields::none());
    }

    #[Route('/{number}', name: 'agreement_save', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function save(string $number, Request $request, #[CurrentUser] Person $person): Response
    {
        $agreement = $this->find($number);
        $fields = Fields::of($request);
        if ($request->request->has('end')) {
            $agreement->end();
            $this->audit->note($person, $number, 'Ended early');
        } elseif ((int) $fields->text('version') !== $agreement->version()) {
            $fields->refuse(
                'agreement',
                'Somebody changed this agreement while you were typing. Your entries are still in the fields; save '
                .'again to use them.',
            );
        } else {
            $this->apply($agreement, $fields);
            $this->audit->note($person, $number, 'Changed');
        }
        if (!$fields->isGood()) {
            $this->entities->clear();

            return $this->page($this->find($number), $fields);
        }
        $this->entities->flush();
        $this->addFlash('fine', $number.' is saved.');

        return $this->redirectToRoute('agreement', ['number' => $number]);
    }

    private function apply(Agreement $agreement, Fields $fields): void
    {
        $from = $fields->day('first_day', $fields->text('first_day'));
        $to = $fields->day('last_day', $fields->text('last_day'));
        $promised = $fields->price('promised', $fields->text('promised'));
        $price = $fields->price('price', $fields->text('price'));
        $callOff = $fields->price('call_off', $fields->text('call_off'));
        $tolerance = $fields->price('tolerance', $fields->text('tolerance')) ?? BigDecimal::zero();
        if (null === $from || null === $to) {
            $fields->refuse('last_day', 'Say from when to when it holds.');
        } else {
            $fields->apply('last_day', static fn () => $agreement->hold($from, $to, $fields->text('renewal', 300)));
        }
        $fields->apply(
            'promised',
            static fn () => $agreement->promise(
                $fields->text('measure') ?: $agreement->measure(),
                $promised ?? BigDecimal::zero(),
                $price,
                $callOff,
                $tolerance,
            ),
        );
    }

    private function listPage(Fields $fields): Response
    {
        $today = $this->clock->now();
        $drawn = $this->agreements->drawn();
        $rows = [];
        foreach ($this->agreements->all() as $agreement) {
            $rows[] = [
                'agreement' => $agreement,
                'drawn' => $drawn[$agreement->id],
                'pace' => $agreement->pace($drawn[$agreement->id]['drawn'], $today),
            ];
        }

        return $this->render(
            'agreements/agreements.html.twig',
            [
                'rows' => $rows,
                'fields' => $fields,
                'suppliers' => $this->entities->getRepository(Supplier::class)->findBy([], ['name' => 'ASC']),
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    private function page(Agreement $agreement, Fields $fields): Response
    {
        $drawn = $this->agreements->drawn($agreement)[$agreement->id];

        return $this->render(
            'agreements/agreement.html.twig',
            [
                'agreement' => $agreement,
                'fields' => $fields,
                'drawn' => $drawn,
                'pace' => $agreement->pace($drawn['drawn'], $this->clock->now()),
                'lines' => $this->entities
                    ->getRepository(OrderLine::class)
                    ->findBy(['agreement' => $agreement], ['id' => 'DESC'], 60),
                'history' => $this->audit->of($agreement->number),
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    private function find(string $number): Agreement
    {
        return $this->agreements->byNumber($number) ??
            throw $this->createNotFoundException(sprintf('There is no agreement %s.', $number));
    }
}
