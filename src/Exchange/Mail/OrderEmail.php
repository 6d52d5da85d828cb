<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Mail;

use Symfony\Component\Mailer\MailerInterface;
use Symfony\Component\Mime\Address;
use Symfony\Component\Mime\Email;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Ordering\OrderLetter;
use Twig\Environment;

/** Emails about an order: a copy to the sender, replies to them. */
final readonly class OrderEmail implements OrderLetter
{
    public function __construct(
        private MailerInterface $mailer,
        private Environment $twig,
        private CurrentBusiness $business,
    ) {
    }

    public function send(PurchaseOrder $order, Person $sender, array $documents): void
    {
        $business = $this->business->get();
        $letter = $this->letter($order, $sender, sprintf('Order %s from %s', $order->number, $business->name))->text(
            $this->twig->render('paper/letter.txt.twig', [
                'order' => $order,
                'business' => $business,
                'sender' => $sender,
            ]),
        );
        foreach ($documents as $document) {
            $letter->attach($document->content(), $document->filename, $document->mediaType);
        }
        $this->mailer->send($letter);
    }

    public function askForward(PurchaseOrder $order, Item $item, \DateTimeImmutable $by, Person $sender): void
    {
        $business = $this->business->get();
        $line =
            array_values(
                array_filter($order->lines(), static fn (OrderLine $line): bool => $line->item === $item),
            )[0] ??
            throw new \LogicException('The item is on the order.');
        $this->mailer->send(
            $this->letter(
                $order,
                $sender,
                sprintf(
                    '%s from %s: could %s come by %s?',
                    $order->number,
                    $business->name,
                    $line->supplierCode(),
                    $by->format('j M'),
                ),
            )->text(
                $this->twig->render('paper/forward.txt.twig', [
                    'order' => $order,
                    'line' => $line,
                    'by' => $by,
                    'business' => $business,
                    'sender' => $sender,
                ]),
            ),
        );
    }

    private function letter(PurchaseOrder $order, Person $sender, string $subject): Email
    {
        $contact = $order->supplier->contact() ?? throw new \LogicException('A sent order has a contact.');

        return (new Email())
            ->from(new Address($sender->email, $sender->name.', '.$this->business->get()->name))
            ->replyTo(new Address($sender->email, $sender->name))
            ->to(new Address($contact->email(), $contact->name()))
            ->cc(new Address($sender->email, $sender->name))
            ->subject($subject);
    }
}
