<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Dock\Attachment;
use TallBarrel\Store\Dock\Attachments;
use TallBarrel\Store\Dock\Delivery;
use TallBarrel\Store\Dock\DeliveryLine;
use TallBarrel\Store\Dock\HowItCame;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Keeping\KnownContent;

/** What is noted of a delivery besides what is in it: who brought it, how it looked, pictures and the scanned note. */
final readonly class DescribeArrival
{
    private const MOST = 12;

    public function __construct(
        private EntityManagerInterface $entities,
        private Attachments $attachments,
        private KnownContent $contents,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    public function describe(Delivery $delivery, HowItCame $came): void
    {
        $delivery->cameLike($came);
        $this->entities->flush();
    }

    /**
     * The same once more is kept once.
     *
     * @param string $name  as the file was called; nothing is believed of it
     * @param string $bytes a PDF, which is kept as it is, or a PNG or JPEG, which is drawn anew
     *
     * @param DeliveryLine|null $line what it shows, if not the whole of it
     *
     * @throws InvalidValue if it is none of these, or too large
     * @throws Refused      if there are too many, or the line is of another delivery
     */
    public function attach(
        Delivery $delivery,
        string $name,
        string $bytes,
        Person $by,
        ?DeliveryLine $line = null,
    ): Attachment {
        if (null !== $line && $line->delivery !== $delivery) {
            throw new Refused('That line is of another delivery.');
        }
        [$called, $mime, $content] = $this->contents->of($name, $bytes);
        $kept = $this->attachments->of($delivery);
        foreach ($kept as $row) {
            $same = $row['line'] === $line?->id ? $this->attachments->find($row['id']) : null;
            if ($content === $same?->content()) {
                return $same;
            }
        }
        if (count($kept) >= self::MOST) {
            throw new Refused(sprintf('%d are kept with it already; take one away first.', self::MOST));
        }
        $now = $this->clock->now();
        $attachment = new Attachment($delivery, $called, $mime, $content, $by, $now, $line);
        $this->entities->persist($attachment);
        $this->audit->note($by, 'delivery note '.$delivery->noteNumber, $attachment->name.' attached');
        $this->entities->flush();

        return $attachment;
    }

    public function remove(Attachment $attachment, Person $by): void
    {
        $this->audit->note(
            $by,
            'delivery note '.$attachment->delivery->noteNumber,
            sprintf('%s of %s taken away', $attachment->name, $attachment->by->name()),
        );
        $this->entities->remove($attachment);
        $this->entities->flush();
    }
}
