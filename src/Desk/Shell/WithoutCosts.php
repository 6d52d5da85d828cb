<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\ControllerEvent;
use Symfony\Component\HttpKernel\Exception\AccessDeniedHttpException;
use Symfony\Component\HttpKernel\KernelEvents;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Person\Right;

/** Who may not see costs sees no amount of money on any page, and no page that is about money. */
final readonly class WithoutCosts
{
    public function __construct(private Security $security)
    {
    }

    #[AsEventListener(KernelEvents::CONTROLLER, priority: -4)]
    public function hide(ControllerEvent $event): void
    {
        if (!$event->isMainRequest()) {
            return;
        }
        $person = $this->security->getUser();
        $hidden = $person instanceof Person && !in_array(Right::Costs->value, $person->getRoles(), true);
        Format::hideMoney($hidden);
        if (!$hidden) {
            return;
        }
        if (isset($event->getAttributes()[AboutMoney::class])) {
            throw new AccessDeniedHttpException('This page is about costs, which your role does not see.');
        }
    }
}
