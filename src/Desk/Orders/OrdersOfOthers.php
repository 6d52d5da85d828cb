<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Orders;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\ControllerEvent;
use Symfony\Component\HttpKernel\Exception\AccessDeniedHttpException;
use Symfony\Component\HttpKernel\KernelEvents;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;

/** Whoever may handle only orders of their own changes and sends no other: one rule for every act on an order. */
final readonly class OrdersOfOthers
{
    public function __construct(private Security $security, private EntityManagerInterface $entities)
    {
    }

    #[AsEventListener(KernelEvents::CONTROLLER, priority: -8)]
    public function refuse(ControllerEvent $event): void
    {
        $request = $event->getRequest();
        $person = $this->security->getUser();
        $number = $request->attributes->get('number');
        if (
            $request->isMethodSafe()
            || !$person instanceof Person
            || $person->handlesAll()
            || !is_string($number)
            || !str_starts_with($request->getPathInfo(), '/orders/')
        ) {
            return;
        }
        $order = $this->entities->getRepository(PurchaseOrder::class)->findOneBy(['number' => $number]);
        if (null !== $order && !$person->mayHandleOrdersOf($order->buyer)) {
            throw new AccessDeniedHttpException(
                sprintf('%s is an order of %s, and you handle your own.', $order->number, $order->buyer->name()),
            );
        }
    }
}
