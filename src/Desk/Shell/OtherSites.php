<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Event\ControllerEvent;
use Symfony\Component\HttpKernel\Exception\AccessDeniedHttpException;
use Symfony\Component\HttpKernel\KernelEvents;
use TallBarrel\Store\Dock\Delivery;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Site\Site;

/** Whoever may see some sites only opens no page of another, and names no other in a form. */
final readonly class OtherSites
{
    public function __construct(private SeenSites $seen, private EntityManagerInterface $entities)
    {
    }

    #[AsEventListener(KernelEvents::CONTROLLER, priority: -8)]
    public function refuse(ControllerEvent $event): void
    {
        if (!$event->isMainRequest() || $this->seen->areAll()) {
            return;
        }
        if (isset($event->getAttributes()[AllSites::class])) {
            throw new AccessDeniedHttpException('This page is about all sites, and you see some of them.');
        }
        // An order may go to several sites, and goods be moved from one to another: one of them is enough.
        foreach (
            [
                $this->inAddress($event->getRequest()),
                self::inForm($event->getRequest(), ['from', 'to']),
                self::inForm($event->getRequest(), ['site']),
                self::inForm($event->getRequest(), ['add_site']),
            ] as $named
        ) {
            if ([] !== $named && [] === array_filter($named, $this->seen->has(...))) {
                throw new AccessDeniedHttpException('This belongs to a site that you do not see.');
            }
        }
    }

    /** @return list<int> sites of what the address leads to; empty where it is of none */
    private function inAddress(Request $request): array
    {
        $given = $request->attributes;
        [$path, $number, $id] = [$request->getPathInfo(), $given->get('number'), $given->getInt('id')];
        if (is_string($given->get('site'))) {
            $site = $this->entities->getRepository(Site::class)->findOneBy(['code' => $given->get('site')]);

            return null === $site ? [] : [$site->id];
        }
        if (is_string($number) && str_starts_with($path, '/orders/')) {
            $order = $this->entities->getRepository(PurchaseOrder::class)->findOneBy(['number' => $number]);

            return array_map(static fn (Site $site): int => $site->id, $order?->sites() ?? []);
        }
        if ($id > 0 && str_starts_with($path, '/dock/')) {
            $delivery = $this->entities->find(Delivery::class, $id);

            return null === $delivery ? [] : [$delivery->site->id];
        }

        return [];
    }

    /**
     * @param list<string> $fields that name a site by its id
     *
     * @return list<int>
     */
    private static function inForm(Request $request, array $fields): array
    {
        $sites = [];
        foreach ($fields as $field) {
            $typed = $request->request->all()[$field] ?? $request->query->all()[$field] ?? null;
            if (is_string($typed) && ctype_digit($typed) && strlen($typed) < 10 && '0' !== $typed) {
                $sites[] = (int) $typed;
            }
        }

        return $sites;
    }
}
