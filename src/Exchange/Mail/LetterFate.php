<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Mail;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\Mailer\Event\FailedMessageEvent;
use Symfony\Component\Mailer\Event\SentMessageEvent;
use Symfony\Component\Mime\Message;
use Symfony\Component\Mime\RawMessage;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Audit\AuditEntry;

/** Notes on the order whether the mail server took a letter about it. */
final readonly class LetterFate
{
    /** Names the order a letter is about. */
    public const HEADER = 'X-Order';

    public function __construct(private Audit $audit)
    {
    }

    #[AsEventListener]
    public function taken(SentMessageEvent $event): void
    {
        $this->note($event->getMessage()->getOriginalMessage(), 'The mail server took “%s”');
    }

    /** Said once, however often it is tried. */
    #[AsEventListener]
    public function refused(FailedMessageEvent $event): void
    {
        $this->note(
            $event->getMessage(),
            'Could not be mailed: “%s”: '.str_replace('%', '%%', $event->getError()->getMessage()),
        );
    }

    private function note(RawMessage $letter, string $words): void
    {
        $order = $letter instanceof Message ? $letter->getHeaders()->getHeaderBody(self::HEADER) : null;
        if (!$letter instanceof Message || !is_string($order)) {
            return;
        }
        $subject = $letter->getHeaders()->getHeaderBody('Subject');
        $words = mb_substr(sprintf($words, is_string($subject) ? $subject : ''), 0, 300);
        $same = array_filter(
            $this->audit->of($order, 3),
            static fn (AuditEntry $entry): bool => $entry->words === $words,
        );
        if ([] === $same) {
            $this->audit->note(null, $order, $words);
            $this->audit->keep();
        }
    }
}
