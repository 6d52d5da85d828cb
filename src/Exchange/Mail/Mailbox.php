<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Mail;

use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Mailer\SentMessage;
use Symfony\Component\Mime\Address;
use Symfony\Component\Mime\Email;
use Symfony\Component\Mime\Part\DataPart;
use TallBarrel\Work\Ordering\SentLetters;

/**
 * The stand-in for the outside world's mail: every message as an .eml file under var/, with its headers beside it for
 * the page that shows them.
 *
 * @phpstan-import-type Letter from SentLetters
 */
final readonly class Mailbox implements SentLetters
{
    public function __construct(private string $instanceDir, private ClockInterface $clock)
    {
    }

    public function put(SentMessage $message): void
    {
        $at = $this->clock->now();
        $known = substr(hash('sha256', $message->getMessageId()), 0, 12);
        if ([] !== (glob($this->dir().'/*-'.$known.'.json') ?: [])) {
            // Taken before, by a worker that died before it could say so.
            return;
        }
        $begun = glob($this->dir().'/*-'.$known.'.eml') ?: [];
        $name = [] === $begun ? $at->format('Ymd-His-').$known : basename($begun[0], '.eml');
        $original = $message->getOriginalMessage();
        $email = $original instanceof Email ? $original : new Email();
        $letter = [
            'name' => $name,
            'at' => $at->format(\DATE_ATOM),
            'from' => $message->getEnvelope()->getSender()->getAddress(),
            'to' => self::addresses($email->getTo()),
            'copy' => self::addresses([...$email->getCc(), ...$email->getBcc()]),
            'subject' => $email->getSubject() ?? '',
            'text' => is_string($email->getTextBody()) ? $email->getTextBody() : '',
            'attachments' => array_map(
                static fn (DataPart $part): string => $part->getFilename() ?? '',
                $email->getAttachments(),
            ),
        ];
        if (!is_dir($this->dir())) {
            mkdir($this->dir(), 0o775, true);
        }
        if (
            false === file_put_contents($this->dir().'/'.$name.'.eml', $message->toString())
            || false ===
                file_put_contents($this->dir().'/'.$name.'.json', json_encode($letter, \JSON_THROW_ON_ERROR))
        ) {
            throw new \RuntimeException('The mailbox could not be written to.');
        }
    }

    public function letters(int $most = 100): array
    {
        $files = glob($this->dir().'/*.json') ?: [];
        rsort($files);
        $letters = [];
        foreach (array_slice($files, 0, $most) as $file) {
            /** @var Letter $letter */
            $letter = json_decode((string) file_get_contents($file), true, flags: \JSON_THROW_ON_ERROR);
            $letters[] = $letter;
        }

        return $letters;
    }

    public function eml(string $name): ?string
    {
        $file = $this->dir().'/'.$name.'.eml';

        return 1 === preg_match('/^[\w-]+$/', $name) && is_file($file) ? (string) file_get_contents($file) : null;
    }

    /**
     * @param array<Address> $list
     *
     * @return list<string>
     */
    private static function addresses(array $list): array
    {
        return array_values(array_map(static fn (Address $address): string => $address->getAddress(), $list));
    }

    private function dir(): string
    {
        return $this->instanceDir.'/mail';
    }
}
