<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Mail;

use Symfony\Component\Mailer\Transport\AbstractTransportFactory;
use Symfony\Component\Mailer\Transport\Dsn;
use Symfony\Component\Mailer\Transport\TransportInterface;
use Symfony\Contracts\Service\Attribute\Required;

/** Makes "mailbox://default" a mail server to Symfony Mailer. */
final class MailboxTransportFactory extends AbstractTransportFactory
{
    private Mailbox $mailbox;

    #[Required]
    public function deliverTo(Mailbox $mailbox): void
    {
        $this->mailbox = $mailbox;
    }

    public function create(Dsn $dsn): TransportInterface
    {
        return new MailboxTransport($this->mailbox, $this->dispatcher, $this->logger);
    }

    /** @return list<string> */
    protected function getSupportedSchemes(): array
    {
        return ['mailbox'];
    }
}
