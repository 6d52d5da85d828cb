<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Mail;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Mailer\MailerInterface;
use Symfony\Component\Mime\Address;
use Symfony\Component\Mime\Email;
use TallBarrel\Exchange\Pdf\Paper;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Quote\Quote;
use TallBarrel\Store\Quote\QuoteLetter;
use TallBarrel\Work\Sourcing\QuoteLetters;
use TallBarrel\Work\Sourcing\QuoteSheet;
use Twig\Environment;

/** Emails about quotes: a copy to the sender, replies to them, and all of it kept with the quote. */
final readonly class QuoteEmail implements QuoteLetters
{
    public function __construct(
        private MailerInterface $mailer,
        private Environment $twig,
        private CurrentBusiness $business,
        private Links $links,
        private Paper $paper,
        private QuoteSheet $sheet,
        private EntityManagerInterface $entities,
        private ClockInterface $clock,
    ) {
    }

    public function ask(Quote $quote, Person $sender): void
    {
        $round = $quote->round;
        $letter = $this->letter(
            $quote,
            $sender,
            'ask',
            sprintf('%s: your price for %s, please', $round->number, $round->subject()),
        )
            ->attach(
                $this->paper->pdf('paper/quote.html.twig', ['quote' => $quote, 'business' => $this->business->get()]),
                $round->number.'.pdf',
                'application/pdf',
            )
            ->attach($this->sheet->blank($quote), $round->number.'.csv', 'text/csv');
        foreach ($round->files() as $file) {
            $letter->attach($file->content(), $file->filename, $file->mediaType);
        }
        $this->send($letter, $quote);
    }

    public function remind(Quote $quote, Person $sender): void
    {
        $this->send(
            $this->letter(
                $quote,
                $sender,
                'remind',
                sprintf(
                    '%s: may we expect your price by %s?',
                    $quote->round->number,
                    $quote->round->replyBy()->format('j M'),
                ),
            ),
            $quote,
        );
    }

    public function tellLost(Quote $quote, Person $sender): void
    {
        $this->send(
            $this->letter($quote, $sender, 'lost', sprintf('%s: thank you for your quote', $quote->round->number)),
            $quote,
        );
    }

    private function letter(Quote $quote, Person $sender, string $template, string $subject): Email
    {
        $contact = $quote->contact() ?? throw new \LogicException('Somebody without a contact was asked.');
        $business = $this->business->get();

        return (new Email())
            ->from(new Address($sender->email(), $sender->name().', '.$business->name()))
            ->replyTo(new Address($sender->email(), $sender->name()))
            ->to(new Address($contact->email(), $contact->name()))
            ->cc(new Address($sender->email(), $sender->name()))
            ->subject($subject)
            ->text(
                $this->twig->render('paper/quote_'.$template.'.txt.twig', [
                    'quote' => $quote,
                    'round' => $quote->round,
                    'business' => $business,
                    'sender' => $sender,
                    'link' => $this->links->to('supplier_quote', ['token' => $quote->token()]),
                ]),
            );
    }

    private function send(Email $letter, Quote $quote): void
    {
        $text = $letter->getTextBody();
        $kept = new QuoteLetter(
            $quote,
            $this->clock->now(),
            true,
            mb_substr($letter->getSubject() ?? '', 0, 200),
            is_string($text) ? $text : '',
        );
        $quote->keep($kept);
        $this->entities->persist($kept);
        $this->mailer->send($letter);
    }
}
