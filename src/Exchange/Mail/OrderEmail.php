<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Mail;

use Symfony\Component\Mailer\MailerInterface;
use Symfony\Component\Mime\Address;
use Symfony\Component\Mime\Email;
use Symfony\Contracts\Translation\TranslatorInterface;
use TallBarrel\Core\Ordering\AnswerState;
use TallBarrel\Core\Ordering\RevisionChange;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Order\OrderAnswer;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Ordering\LetterWords;
use TallBarrel\Work\Ordering\OrderLetter;
use Twig\Environment;

/** Emails about an order: a copy to the sender, replies to them. */
final readonly class OrderEmail implements OrderLetter
{
    public function __construct(
        private MailerInterface $mailer,
        private Environment $twig,
        private CurrentBusiness $business,
        private Links $links,
        private TranslatorInterface $translator,
    ) {
    }

    public function usual(PurchaseOrder $order, Person $sender): string
    {
        return trim($this->words('letter', $order, $sender, ['link' => LetterWords::LINK]));
    }

    public function send(PurchaseOrder $order, Person $sender, array $documents, LetterWords $words): void
    {
        $subject = $this->subject('subject', $order, 'paper');
        $letter = $this->letter($order, $sender, $subject)
            ->text(
                str_replace(
                    LetterWords::LINK,
                    $this->link($order),
                    '' === $words->words ? $this->usual($order, $sender) : $words->words,
                ),
            )
            ->addCc(...$words->copies);
        foreach ($documents as $document) {
            $letter->attach($document->content(), $document->filename, $document->mediaType);
        }
        $this->mailer->send($letter);
    }

    public function revised(PurchaseOrder $order, Person $sender, array $documents, RevisionChange $change): void
    {
        $subject = $this->subject('revised subject', $order);
        $letter = $this->letter($order, $sender, $subject)
            ->text($this->words('revised', $order, $sender, ['change' => $change, 'link' => $this->link($order)]));
        foreach ($documents as $document) {
            $letter->attach($document->content(), $document->filename, $document->mediaType);
        }
        $this->mailer->send($letter);
    }

    public function cancelled(PurchaseOrder $order, string $reason, Person $sender): void
    {
        $subject = $this->subject('cancelled subject', $order);
        $this->mailer->send(
            $this->letter($order, $sender, $subject)
                ->text($this->words('cancelled', $order, $sender, ['reason' => $reason])),
        );
    }

    public function decided(OrderAnswer $answer, string $words, Person $sender): void
    {
        $accepted = AnswerState::Accepted === $answer->state();
        $order = $answer->order;
        $subject = $this->subject($accepted ? 'yes subject' : 'no subject', $order);
        $this->mailer->send(
            $this->letter($order, $sender, $subject)->text(
                $this->words('decided', $order, $sender, [
                    'answer' => $answer,
                    'accepted' => $accepted,
                    'words' => $words,
                    'link' => $this->link($order),
                ]),
            ),
        );
    }

    public function askWhere(PurchaseOrder $order, int $before, Person $sender): void
    {
        $subject = $this->subject('where subject', $order);
        $this->mailer->send(
            $this->letter($order, $sender, $subject)
                ->text($this->words('where', $order, $sender, ['before' => $before, 'link' => $this->link($order)])),
        );
    }

    /** @param array<string, string> $more */
    private function subject(string $key, PurchaseOrder $order, string $domain = 'letter', array $more = []): string
    {
        return $this->translator->trans($key, $more + [
            '%number%' => $order->number,
            '%business%' => $this->business->get()->name(),
            '%revision%' => (string) $order->revision(),
        ], $domain, $order->supplier->paperLanguage()->value);
    }

    /** Where they see the order without a sign-in. */
    private function link(PurchaseOrder $order): string
    {
        return $this->links->to('supplier_order', ['token' => $order->token()]);
    }

    /** @param array<string, mixed> $more */
    private function words(string $template, PurchaseOrder $order, Person $sender, array $more): string
    {
        return $this->twig->render('paper/'.$template.'.txt.twig', [
            'order' => $order,
            'business' => $this->business->get(),
            'sender' => $sender,
        ] + $more);
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
                $this->subject('forward subject', $order, 'letter', [
                    '%code%' => $line->supplierCode(),
                    '%day%' => $by->format('j.n.'),
                ]),
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

        $letter = (new Email())
            ->from(new Address($sender->email(), $sender->name().', '.$this->business->get()->name()))
            ->replyTo(new Address($sender->email(), $sender->name()))
            ->to(new Address($contact->email(), $contact->name()))
            ->cc(new Address($sender->email(), $sender->name()))
            ->subject($subject);
        $letter->getHeaders()->addTextHeader(LetterFate::HEADER, $order->number);

        return $letter;
    }
}
