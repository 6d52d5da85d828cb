<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Talk;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Dock\Delivery;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Talk\TalkLine;
use TallBarrel\Store\Talk\TalkLines;

/** What can be talked about, where it stands, and what a page shows of it. */
final readonly class Talk
{
    /** By the first word of a subject: what it is, the field that names it, and its page. */
    private const KINDS = [
        'order' => [PurchaseOrder::class, 'number'],
        'item' => [Item::class, 'code'],
        'delivery' => [Delivery::class, 'id'],
    ];

    public function __construct(
        private EntityManagerInterface $entities,
        private TalkLines $lines,
        private UrlGeneratorInterface $urls,
    ) {
    }

    public function isThere(string $subject): bool
    {
        [$kind, $key] = self::parts($subject);
        if (!isset(self::KINDS[$kind])) {
            return false;
        }
        [$class, $field] = self::KINDS[$kind];

        return $this->entities->getRepository($class)->count([$field => $key]) > 0;
    }

    public function path(string $subject): string
    {
        [$kind, $key] = self::parts($subject);

        return $this->urls->generate($kind, [self::KINDS[$kind][1] ?? 'id' => $key]);
    }

    /** @return array{string, string} what it is, and which */
    public static function parts(string $subject): array
    {
        $parts = explode(' ', $subject, 2);

        return [$parts[0], $parts[1] ?? ''];
    }

    /** @return array{subject: string, inLines: bool, lines: list<TalkLine>, people: list<Person>} */
    public function about(string $kind, string|int $key): array
    {
        $subject = $kind.' '.$key;

        return ['subject' => $subject, 'inLines' => 'order' === $kind] + $this->lines->about($subject);
    }

    /**
     * @param string $number of a line, "3" or "3.1"; empty for all of it
     *
     * @return string "line 3: Lid 70 mm gold"
     *
     * @throws Refused if there is no such line
     */
    public function part(string $subject, string $number): string
    {
        [$kind, $key] = self::parts($subject);
        if ('' === $number || 'order' !== $kind) {
            return '';
        }
        $order = $this->entities->getRepository(PurchaseOrder::class)->findOneBy(['number' => $key]);
        foreach ($order?->lines() ?? [] as $line) {
            if ($line->number() === $number) {
                return mb_substr(sprintf('line %s: %s', $number, $line->description), 0, 120);
            }
        }
        throw new Refused(sprintf('There is no line %s on %s.', $number, $key));
    }
}
