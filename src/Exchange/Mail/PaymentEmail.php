<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Mail;

use Symfony\Component\Mailer\MailerInterface;
use Symfony\Component\Mime\Address;
use Symfony\Component\Mime\Email;
use TallBarrel\Core\Money\Money;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\CreditNote;
use TallBarrel\Store\Settle\Invoice;
use TallBarrel\Store\Supplier\Contact;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Settling\PaymentAdvice;
use Twig\Environment;

/** An email to whoever settles accounts at the supplier. */
final readonly class PaymentEmail implements PaymentAdvice
{
    public function __construct(
        private MailerInterface $mailer,
        private Environment $twig,
        private CurrentBusiness $business,
    ) {
    }

    public function tell(
        Supplier $supplier,
        array $invoices,
        array $credits,
        \DateTimeImmutable $on,
        Person $by,
    ): bool {
        $contact = $supplier->writtenTo(Contact::ACCOUNTS);
        if (null === $contact) {
            return false;
        }
        $business = $this->business->get();
        $currency = $invoices[0]->currency;
        $sum = Money::sum($currency, array_map(static fn (Invoice $one): Money => $one->paidLast(), $invoices))
            ->minus(Money::sum($currency, array_map(static fn (CreditNote $one): Money => $one->due(), $credits)));
        $this->mailer->send(
            (new Email())
                ->from(new Address($by->email(), $by->name().', '.$business->name()))
                ->replyTo(new Address($by->email(), $by->name()))
                ->to(new Address($contact->email(), $contact->name()))
                ->subject(sprintf('Payment of %s %s', $currency, $sum->rounded()->amount))
                ->text($this->twig->render('paper/paid.txt.twig', [
                    'invoices' => $invoices,
                    'credits' => $credits,
                    'sum' => $sum->rounded(),
                    'on' => $on,
                    'contact' => $contact,
                    'business' => $business,
                    'sender' => $by,
                ])),
        );

        return true;
    }
}
