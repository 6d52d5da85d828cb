<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Doctrine\DBAL\Connection;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Mailer\Messenger\SendEmailMessage;
use Symfony\Component\Messenger\Envelope;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Messenger\Stamp\ErrorDetailsStamp;
use Symfony\Component\Messenger\Stamp\RedeliveryStamp;
use Symfony\Component\Messenger\Stamp\TransportMessageIdStamp;
use Symfony\Component\Messenger\Transport\Receiver\ListableReceiverInterface;
use Symfony\Component\Mime\Address;
use Symfony\Component\Mime\Email;
use TallBarrel\Core\Refused;
use TallBarrel\Work\Keeping\ImportToApply;
use TallBarrel\Work\Keeping\PlainReason;
use TallBarrel\Work\Planning\PlanPart;
use TallBarrel\Work\Planning\PolicyToPlay;
use TallBarrel\Work\Sourcing\AnswersWanted;
use TallBarrel\Work\Sourcing\PriceListToApply;
use TallBarrel\Work\Sourcing\PriceListToRead;

/** What the workers tried several times and gave up: a person has it tried again, or drops it. */
final readonly class StoppedWork
{
    private const MOST = 100;

    public function __construct(
        #[Autowire(service: 'messenger.transport.failed')] private ListableReceiverInterface $queue,
        private MessageBusInterface $bus,
        private Connection $connection,
    ) {
    }

    /** @return list<StoppedEntry> the latest first */
    public function all(): array
    {
        $entries = [];
        foreach ($this->queue->all(self::MOST) as $envelope) {
            $id = $envelope->last(TransportMessageIdStamp::class)?->getId();
            $error = $envelope->last(ErrorDetailsStamp::class);
            $entries[] = new StoppedEntry(
                is_scalar($id) ? (int) $id : 0,
                self::words($envelope->getMessage()),
                PlainReason::read($error?->getExceptionMessage() ?? ''),
                $envelope->last(RedeliveryStamp::class)?->getRedeliveredAt(),
            );
        }

        return array_reverse($entries);
    }

    /** @throws Refused if somebody settled it meanwhile */
    public function again(int $id): void
    {
        // Back in its queue if and only if it is gone from here; of two people at once the second finds it gone.
        $this->connection->transactional(function () use ($id): void {
            $this->connection->fetchOne('SELECT id FROM queued_message WHERE id = ? FOR UPDATE', [$id]);
            $envelope = $this->find($id);
            $this->queue->reject($envelope);
            $this->bus->dispatch(new Envelope($envelope->getMessage()));
        });
    }

    /** @throws Refused if somebody settled it meanwhile */
    public function drop(int $id): void
    {
        $this->queue->reject($this->find($id));
    }

    private function find(int $id): Envelope
    {
        return $this->queue->find($id) ?? throw new Refused('That has been settled meanwhile.');
    }

    private static function words(object $message): string
    {
        return match (true) {
            $message instanceof SendEmailMessage => self::letter($message),
            $message instanceof PlanPart => 'Part of a calculation of what to buy',
            $message instanceof PolicyToPlay => sprintf('The curve of policy %s', $message->class),
            $message instanceof ImportToApply => 'A file of own data, to be applied',
            $message instanceof PriceListToRead => 'A price list, to be read',
            $message instanceof PriceListToApply => 'A price list, to be applied',
            $message instanceof AnswersWanted => 'Answers of stand-in suppliers',
            default => 'Work of another kind',
        };
    }

    private static function letter(SendEmailMessage $message): string
    {
        $email = $message->getMessage();
        if (!$email instanceof Email) {
            return 'A letter';
        }
        $to = implode(', ', array_map(static fn (Address $address): string => $address->getAddress(), $email->getTo()));

        return sprintf('A letter to %s: %s', $to, $email->getSubject() ?? '');
    }
}
