<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Mail;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\Mailer\Messenger\SendEmailMessage;
use Symfony\Component\Messenger\Event\SendMessageToTransportsEvent;
use Symfony\Component\Mime\Message;

/**
 * A letter is named (Message-ID, RFC 5322) when it is queued, not when it goes: a worker that dies after the mail
 * server took it sends it again under the same name, by which whoever gets it knows that they have it.
 */
final readonly class KnownLetters
{
    #[AsEventListener]
    public function name(SendMessageToTransportsEvent $event): void
    {
        $queued = $event->getEnvelope()->getMessage();
        $letter = $queued instanceof SendEmailMessage ? $queued->getMessage() : null;
        if ($letter instanceof Message && !$letter->getHeaders()->has('Message-ID')) {
            $letter->getHeaders()->addIdHeader('Message-ID', $letter->generateMessageId());
        }
    }
}
