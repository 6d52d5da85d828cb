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
use TallBarrel\Work\Keeping\DrawPicture;

/** What is noted of a delivery besides what is in it: who brought it, how it looked, pictures and the scanned note. */
final readonly class DescribeArrival
{
    private const MOST_BYTES = 8 * 1_048_576;
    private const MOST = 12;
    /** Pixels: enough to read a note by. */
    private const WIDEST = 2400;

    public function __construct(
        private EntityManagerInterface $entities,
        private Attachments $attachments,
        private DrawPicture $pictures,
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
        if (count($this->attachments->of($delivery)) >= self::MOST) {
            throw new Refused(sprintf('%d are kept with it already; take one away first.', self::MOST));
        }
        if (strlen($bytes) > self::MOST_BYTES) {
            throw InvalidValue::because(sprintf(
                '“%s” has %.1f MB; at most %d MB are taken.',
                $name,
                strlen($bytes) / 1_048_576,
                self::MOST_BYTES / 1_048_576,
            ));
        }
        [$mime, $content] = $this->seen($name, $bytes);
        $now = $this->clock->now();
        $attachment = new Attachment($delivery, self::named($name, $mime), $mime, $content, $by, $now, $line);
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

    /**
     * What it is by its content.
     *
     * @return array{string, string} kind, and bytes as they are kept
     *
     * @throws InvalidValue
     */
    private function seen(string $name, string $bytes): array
    {
        if (str_starts_with($bytes, '%PDF-')) {
            if (!str_contains(substr($bytes, -2048), '%%EOF')) {
                throw InvalidValue::because(sprintf('“%s” is a PDF without an end; it is damaged.', $name));
            }

            return ['application/pdf', $bytes];
        }
        try {
            $picture = $this->pictures->draw($bytes, self::WIDEST);
        } catch (InvalidValue) {
            throw InvalidValue::because(
                sprintf('“%s” is no picture and no PDF, whatever its name says; expected PDF, PNG or JPEG.', $name),
            );
        }

        return [$picture->mime, $picture->content()];
    }

    /** Its name without what a name cannot be, ending as what it is. */
    private static function named(string $name, string $mime): string
    {
        $plain = (string) preg_replace('/[^\p{L}\p{N} ._-]+/u', '', pathinfo($name, \PATHINFO_FILENAME));

        return mb_substr('' === trim($plain, ' .') ? 'scan' : trim($plain, ' .'), 0, 100).match ($mime) {
            'application/pdf' => '.pdf',
            'image/png' => '.png',
            default => '.jpg',
        };
    }
}
