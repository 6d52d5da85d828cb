<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Mail;

use Psr\EventDispatcher\EventDispatcherInterface;
use Psr\Log\LoggerInterface;
use Symfony\Component\Mailer\SentMessage;
use Symfony\Component\Mailer\Transport\AbstractTransport;

/** Puts mail into the stand-in mailbox instead of sending it. */
final class MailboxTransport extends AbstractTransport
{
    public function __construct(
        private readonly Mailbox $mailbox,
        ?EventDispatcherInterface $dispatcher = null,
        ?LoggerInterface $logger = null,
    ) {
        parent::__construct($dispatcher, $logger);
    }

    public function __toString(): string
    {
        return 'mailbox://default';
    }

    protected function doSend(SentMessage $message): void
    {
        $this->mailbox->put($message);
    }
}
