<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Mail;

use Symfony\Component\Mailer\MailerInterface;
use Symfony\Component\Mime\Address;
use Symfony\Component\Mime\Email;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Order\OrderLetter;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use Twig\Environment;

/** The email an order goes out with: the PDF attached, a copy to the sender, replies to them. */
final readonly class OrderEmail implements OrderLetter
{
    public function __construct(private MailerInterface $mailer, private Environment $twig, private CurrentBusiness $business)
    {
    }

    public function send(PurchaseOrder $order, Person $sender, string $pdf): void
    {
        $business = $this->business->get();
        $contact = $order->supplier->contact() ?? throw new \LogicException('A sent order has a contact.');
        $this->mailer->send(
            (new Email())
                ->from(new Address($sender->email, $sender->name.', '.$business->name))
                ->replyTo(new Address($sender->email, $sender->name))
                ->to(new Address($contact->email(), $contact->name()))
                ->cc(new Address($sender->email, $sender->name))
                ->subject(sprintf('Order %s from %s', $order->number, $business->name))
                ->text($this->twig->render('paper/letter.txt.twig', ['order' => $order, 'business' => $business, 'sender' => $sender]))
                ->attach($pdf, $order->number.'.pdf', 'application/pdf'),
        );
    }
}
