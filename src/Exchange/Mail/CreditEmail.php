<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Mail;

use Symfony\Component\Mailer\MailerInterface;
use Symfony\Component\Mime\Address;
use Symfony\Component\Mime\Email;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\Invoice;
use TallBarrel\Store\Settle\InvoiceLine;
use TallBarrel\Store\Supplier\Contact;
use TallBarrel\Work\Settling\CreditLetter;
use Twig\Environment;

/** An email to whoever settles accounts at the supplier: a copy to the sender, replies to them. */
final readonly class CreditEmail implements CreditLetter
{
    public function __construct(
        private MailerInterface $mailer,
        private Environment $twig,
        private CurrentBusiness $business,
    ) {
    }

    public function ask(Invoice $invoice, InvoiceLine $line, Person $by): void
    {
        $contact = $invoice->supplier->writtenTo(Contact::ACCOUNTS)
            ?? throw new Refused(sprintf(
                'Nobody of %s has an address to write to; type one on its page, or pay as it was agreed.',
                $invoice->supplier->name(),
            ));
        $business = $this->business->get();
        $this->mailer->send(
            (new Email())
                ->from(new Address($by->email(), $by->name().', '.$business->name()))
                ->replyTo(new Address($by->email(), $by->name()))
                ->to(new Address($contact->email(), $contact->name()))
                ->cc(new Address($by->email(), $by->name()))
                ->subject(sprintf('Your invoice %s: a credit note, please', $invoice->number))
                ->text($this->twig->render('paper/credit.txt.twig', [
                    'invoice' => $invoice,
                    'line' => $line,
                    'match' => $line->match(),
                    'contact' => $contact,
                    'business' => $business,
                    'sender' => $by,
                ])),
        );
    }
}
