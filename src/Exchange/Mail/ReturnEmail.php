<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Mail;

use Symfony\Component\Mailer\MailerInterface;
use Symfony\Component\Mime\Address;
use Symfony\Component\Mime\Email;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Dock\SupplierReturn;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Contact;
use TallBarrel\Work\Receiving\ReturnLetter;
use Twig\Environment;

/** An email to whoever takes orders at the supplier, in their language: a copy to the sender, replies to them. */
final readonly class ReturnEmail implements ReturnLetter
{
    public function __construct(
        private MailerInterface $mailer,
        private Environment $twig,
        private CurrentBusiness $business,
    ) {
    }

    public function ask(SupplierReturn $back, Person $sender): void
    {
        $this->write($back, $sender, 'ask');
    }

    public function onTheWay(SupplierReturn $back, Person $sender): void
    {
        $this->write($back, $sender, 'way');
    }

    private function write(SupplierReturn $back, Person $sender, string $about): void
    {
        $supplier = $back->receipt->delivery->supplier;
        $contact = $supplier->writtenTo(Contact::ORDERS)
            ?? throw new Refused(sprintf('Nobody of %s has an address to write to.', $supplier->name()));
        $business = $this->business->get();
        $text = $this->twig->render('paper/return.txt.twig', [
            'back' => $back,
            'about' => $about,
            'contact' => $contact,
            'lang' => $supplier->paperLanguage()->value,
            'business' => $business,
            'sender' => $sender,
        ]);
        // The first line of what is written is its subject.
        [$subject, $text] = explode("\n", $text, 2) + [1 => ''];
        $this->mailer->send(
            (new Email())
                ->from(new Address($sender->email(), $sender->name().', '.$business->name()))
                ->replyTo(new Address($sender->email(), $sender->name()))
                ->to(new Address($contact->email(), $contact->name()))
                ->cc(new Address($sender->email(), $sender->name()))
                ->subject(trim($subject))
                ->text(ltrim($text)),
        );
    }
}
