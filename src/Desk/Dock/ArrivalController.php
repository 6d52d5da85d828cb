<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Dock;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\BroughtFile;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\KeptFile;
use TallBarrel\Desk\Shell\SeenSites;
use TallBarrel\Store\Dock\Attachments;
use TallBarrel\Store\Dock\Delivery;
use TallBarrel\Store\Dock\DeliveryLine;
use TallBarrel\Store\Dock\HowItCame;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Receiving\DescribeArrival;

/** How a delivery came, and what is kept with it; answers with that part of its page alone. */
#[Route('/dock/deliveries/{id}', requirements: ['id' => '\d+'])]
final class ArrivalController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Attachments $attachments,
        private readonly DescribeArrival $describe,
        private readonly SeenSites $seen,
    ) {
    }

    #[Route('/came', name: 'delivery_came', methods: ['POST']), IsGranted('ROLE_RECEIVE')]
    public function came(int $id, Request $request, #[CurrentUser] Person $by): Response
    {
        $delivery = $this->find($id);
        $fields = Fields::of($request);
        $came = $this->read($fields);
        if (null !== $came && $fields->isGood()) {
            $this->describe->describe($delivery, $came);
        }
        $bytes = $fields->attempt('file', static fn (): ?string => BroughtFile::in($request, 'file'));
        if (null !== $bytes) {
            $name = BroughtFile::named($request, 'file');
            $shows = (int) $fields->text('line', 12);
            $line = array_values(array_filter(
                $delivery->lines(),
                static fn (DeliveryLine $one): bool => $one->id === $shows,
            ))[0] ?? null;
            try {
                $fields->attempt('file', fn () => $this->describe->attach($delivery, $name, $bytes, $by, $line));
            } catch (Refused $refused) {
                $fields->refuse('file', $refused->getMessage());
            }
        }

        return $this->answer($delivery, $fields, $request);
    }

    #[Route('/attachments/{attachment}', name: 'attachment', requirements: ['attachment' => '\d+'], methods: ['GET'])]
    public function show(int $id, int $attachment): Response
    {
        $kept = $this->attachments->find($attachment);
        if (null === $kept || $kept->delivery !== $this->find($id)) {
            throw $this->createNotFoundException('Nothing like that is kept with it.');
        }

        return KeptFile::of($kept->name, $kept->mime, $kept->content());
    }

    #[Route('/attachments/{attachment}/remove', name: 'attachment_remove', methods: ['POST'],
        requirements: ['attachment' => '\d+']), IsGranted('ROLE_RECEIVE'),]
    public function remove(int $id, int $attachment, Request $request, #[CurrentUser] Person $by): Response
    {
        $delivery = $this->find($id);
        $kept = $this->attachments->find($attachment);
        if (null !== $kept && $kept->delivery === $delivery) {
            $this->describe->remove($kept, $by);
        }

        return $this->answer($delivery, Fields::none(), $request);
    }

    private function read(Fields $fields): ?HowItCame
    {
        [$packages, $pallets] = array_map(
            static fn (string $name): ?BigDecimal => $fields->quantity($name, $fields->text($name, 12)),
            ['packages', 'pallets'],
        );
        $typed = str_replace('−', '-', $fields->text('temperature', 10));
        $degrees = $fields->quantity('temperature', ltrim($typed, '-'));

        return $fields->attempt('arrival', static fn (): HowItCame => HowItCame::of(
            $fields->text('carrier', 60),
            $fields->text('tracking', 60),
            $packages,
            $pallets,
            $fields->text('condition', 200),
            str_starts_with($typed, '-') ? $degrees?->negated() : $degrees,
        ));
    }

    private function find(int $id): Delivery
    {
        $delivery = $this->entities->find(Delivery::class, $id)
            ?? throw $this->createNotFoundException('There is no such delivery.');
        $this->seen->mustHave($delivery->site->id);

        return $delivery;
    }

    private function answer(Delivery $delivery, Fields $fields, Request $request): Response
    {
        if (!$request->headers->has('HX-Request') && $fields->isGood()) {
            return $this->redirectToRoute('delivery', ['id' => $delivery->id]);
        }

        return $this->render(
            'dock/_came.html.twig',
            [
                'delivery' => $delivery,
                'attachments' => $this->attachments->of($delivery),
                'fields' => $fields,
                'saved' => $fields->isGood(),
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }
}
