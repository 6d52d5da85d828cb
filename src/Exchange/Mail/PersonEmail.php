<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Mail;

use Symfony\Component\Mailer\MailerInterface;
use Symfony\Component\Mime\Address;
use Symfony\Component\Mime\Email;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Person\PersonLink;
use TallBarrel\Work\Keeping\PersonLetters;
use Twig\Environment;

final readonly class PersonEmail implements PersonLetters
{
    public function __construct(
        private MailerInterface $mailer,
        private Environment $twig,
        private CurrentBusiness $business,
        private Links $links,
    ) {
    }

    public function tellOfChange(Person $to, string $address, string $what): void
    {
        $business = $this->business->get();
        $this->mailer->send(
            (new Email())
                ->from(new Address('no-reply@tall-barrel.example', $business->name()))
                ->to(new Address($address, $to->name()))
                ->subject('How you sign in at '.$business->name().' was changed')
                ->text($this->twig->render('paper/person_changed.txt.twig', [
                    'person' => $to,
                    'business' => $business,
                    'what' => $what,
                ])),
        );
    }

    public function sendLink(Person $to, string $token, string $purpose, int $hours): void
    {
        $business = $this->business->get();
        $invited = PersonLink::INVITATION === $purpose;
        $this->mailer->send(
            (new Email())
                ->from(new Address('no-reply@tall-barrel.example', $business->name()))
                ->to(new Address($to->email(), $to->name()))
                ->subject($invited ? 'Your place at '.$business->name() : 'A new password')
                ->text($this->twig->render('paper/person_link.txt.twig', [
                    'person' => $to,
                    'business' => $business,
                    'invited' => $invited,
                    'hours' => $hours,
                    'url' => $this->links->to('password', ['token' => $token]),
                ])),
        );
    }
}
