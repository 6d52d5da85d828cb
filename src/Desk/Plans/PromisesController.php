<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Plans;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Store\Item\CustomerPromise;
use TallBarrel\Store\Item\Promises;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Work\Planning\AskedPromise;
use TallBarrel\Work\Planning\KeepPromise;

/** What customers were promised: given, changed, delivered, called off. */
#[Route('/promises')]
final class PromisesController extends AbstractController
{
    public function __construct(
        private readonly Promises $promises,
        private readonly Sites $sites,
        private readonly KeepPromise $keep,
        private readonly Shell $shell,
        private readonly ClockInterface $clock,
    ) {
    }

    #[Route('', name: 'promises', methods: ['GET'])]
    public function list(Request $request): Response
    {
        return $this->page($request, Fields::none());
    }

    #[Route('', name: 'promise_give', methods: ['POST'])]
    public function give(Request $request, #[CurrentUser] Person $by): Response
    {
        $fields = Fields::of($request);
        $promise = $this->keep->give($this->asked($fields, ''), $by, $fields->problems);
        if (null === $promise) {
            return $this->page($request, $fields);
        }
        $this->addFlash('fine', sprintf(
            '%s is promised to %s by %s.',
            $promise->item->name(),
            $promise->customer(),
            $promise->wantedOn()->format('j M'),
        ));

        return $this->redirectToRoute('promises');
    }

    #[Route('/{id}', name: 'promise_save', requirements: ['id' => '\d{1,9}'], methods: ['POST'])]
    public function save(int $id, Request $request, #[CurrentUser] Person $by): Response
    {
        $fields = Fields::of($request);
        $promise = $this->find($id);
        try {
            match ($fields->text('do')) {
                'delivered' => $this->keep->settle($promise, CustomerPromise::DELIVERED, $by),
                'cancelled' => $this->keep->settle($promise, CustomerPromise::CANCELLED, $by),
                'reopen' => $this->keep->reopen($promise, $by),
                default => $this->keep->change($promise, $this->asked($fields, $promise->item->code), $by,
                    $fields->problems),
            };
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }
        if (!$fields->isGood()) {
            return $this->page($request, Fields::none(), $promise->id, $fields);
        }

        return $this->redirectToRoute('promises', 'reopen' === $fields->text('do') ? [] : array_filter(
            ['settled' => $request->query->getString('settled')],
            static fn (string $chosen): bool => '' !== $chosen,
        ));
    }

    private function asked(Fields $fields, string $item): AskedPromise
    {
        return new AskedPromise(
            '' === $item ? $fields->text('item') : $item,
            $fields->text('customer', 120),
            $fields->text('reference', 40),
            $fields->quantity('quantity', $fields->text('quantity', 20)),
            $fields->day('day', $fields->text('day', 10)),
            $this->sites->find((int) $fields->text('site', 9)),
        );
    }

    /** @param int|null $changing the promise whose change was refused, with what was typed */
    private function page(Request $request, Fields $fields, ?int $changing = null, ?Fields $changed = null): Response
    {
        $settled = '' !== $request->query->getString('settled');
        $words = trim(mb_substr($request->query->getString('q'), 0, 60));
        $promises = $this->promises->all($this->shell->site(), !$settled, $words);

        return $this->render(
            'plans/promises.html.twig',
            [
                'promises' => $promises,
                'held' => $this->promises->held($promises),
                'ordered' => $this->promises->ordered($promises),
                'settled' => $settled,
                'words' => $words,
                'sites' => $this->sites->all(),
                'fields' => $fields,
                'changing' => $changing,
                'changed' => $changed,
                'today' => $this->clock->now(),
            ],
            new Response(status: $fields->isGood() && null === $changing ? 200 : 422),
        );
    }

    private function find(int $id): CustomerPromise
    {
        return $this->promises->find($id) ?? throw $this->createNotFoundException('There is no such promise.');
    }
}
