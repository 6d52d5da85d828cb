<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Mail;

use Symfony\Component\Mailer\MailerInterface;
use Symfony\Component\Mime\Address;
use Symfony\Component\Mime\Email;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Order\OrderLetter;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use Twig\Environment;

/** Emails about an order: a copy to the sender, replies to them. */
final readonly class OrderEmail implements OrderLetter
{
    public function __construct(private MailerInterface $mailer, private Environment $twig, private CurrentBusiness $business)
    {
    }

    public function send(PurchaseOrder $order, Person $sender, string $pdf): void
    {
        $business = $this->business->get();
        $letter = $this->letter($order, $sender, sprintf('Order %s from %s', $order->number, $business->name))
            ->text($this->twig->render('paper/letter.txt.twig', ['order' => $order, 'business' => $business, 'sender' => $sender]))
            ->attach($pdf, $order->number.'.pdf', 'application/pdf');
        if ($order->supplier->wantsCsv()) {
            $letter->attach(self::lines($order), $order->number.'.csv', 'text/csv');
        }
        $this->mailer->send($letter);
    }

    /** For suppliers who read orders in. */
    private static function lines(PurchaseOrder $order): string
    {
        $out = fopen('php://temp', 'r+') ?: throw new \RuntimeException('No room for a file.');
        $rows = array_map(static fn (OrderLine $line): array => [
            $order->number, (string) $line->position, $line->supplierCode(), $line->item->code ?? '', $line->description, (string) $line->packs()->strippedOfTrailingZeros(), $line->pack()->label(),
            (string) $line->price()->strippedOfTrailingZeros(), $order->currency, $line->site->name, $order->wantedOn()->format('Y-m-d'),
        ], $order->lines());
        foreach ([['order', 'line', 'your_code', 'our_code', 'description', 'quantity', 'pack', 'price', 'currency', 'deliver_to', 'wanted_on'], ...$rows] as $row) {
            fputcsv($out, $row, ',', '"', '', "\r\n");
        }
        rewind($out);

        return (string) stream_get_contents($out);
    }

    public function askForward(PurchaseOrder $order, Item $item, \DateTimeImmutable $by, Person $sender): void
    {
        $business = $this->business->get();
        $line = array_values(array_filter($order->lines(), static fn (OrderLine $line): bool => $line->item === $item))[0] ?? throw new \LogicException('The item is on the order.');
        $this->mailer->send(
            $this->letter($order, $sender, sprintf('%s from %s: could %s come by %s?', $order->number, $business->name, $line->supplierCode(), $by->format('j M')))
                ->text($this->twig->render('paper/forward.txt.twig', ['order' => $order, 'line' => $line, 'by' => $by, 'business' => $business, 'sender' => $sender])),
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
