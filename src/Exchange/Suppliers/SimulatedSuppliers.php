<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Suppliers;

use Brick\Math\RoundingMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\HttpKernelInterface;
use Symfony\Component\Lock\LockFactory;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Quote\Quote;
use TallBarrel\Store\Quote\QuoteItem;
use TallBarrel\Store\Quote\Rounds;
use TallBarrel\Work\Sourcing\AnswersWanted;
use TallBarrel\Work\Sourcing\Correspondents;

/**
 * The stand-in for suppliers who are asked for quotes or sent orders: made-up ones (with an address under .example)
 * answer each in its own manner and time, through the same page or file a real one would use.
 */
final readonly class SimulatedSuppliers implements Correspondents
{
    private const QUICK = 'quick';
    private const BY_FILE = 'by file';
    private const ALTERNATIVE = 'alternative';
    private const NEXT_DAY = 'next day';
    private const LATE = 'late';
    private const DECLINES = 'declines';
    private const MANNERS = [self::QUICK, self::BY_FILE, self::ALTERNATIVE, self::NEXT_DAY, self::LATE, self::DECLINES];

    public function __construct(
        private HttpKernelInterface $kernel,
        private UrlGeneratorInterface $urls,
        private Rounds $rounds,
        private Orders $orders,
        private Rates $rates,
        private EntityManagerInterface $entities,
        private LockFactory $locks,
        private ClockInterface $clock,
    ) {
    }

    #[AsMessageHandler]
    public function wanted(AnswersWanted $message): void
    {
        $this->answerDue(true);
    }

    public function answerDue(bool $all = false): int
    {
        $lock = $this->locks->createLock('simulated-suppliers', 120);
        if (!$lock->acquire()) {
            return 0;
        }
        try {
            $answered = 0;
            foreach ($this->rounds->waiting() as $quote) {
                if (
                    str_ends_with($quote->contact()?->email() ?? '', '.example')
                    && ($all || $this->clock->now() >= self::due($quote))
                ) {
                    $this->answer($quote);
                    ++$answered;
                }
            }

            // Orders are confirmed when somebody lets them: what is sent stays as it is meanwhile.
            foreach ($all ? $this->orders->unanswered() : [] as $order) {
                if (str_ends_with($order->supplier->contact()?->email() ?? '', '.example')) {
                    $this->answerOrder($order);
                    ++$answered;
                }
            }

            return $answered;
        } finally {
            $lock->release();
        }
    }

    private static function due(Quote $quote): \DateTimeImmutable
    {
        $asked = $quote->askedAt() ?? $quote->round->createdAt();

        return match (self::manner($quote)) {
            self::QUICK => $asked->modify('+15 seconds'),
            self::BY_FILE => $asked->modify('+40 seconds'),
            self::ALTERNATIVE => $asked->modify('+5 minutes'),
            self::DECLINES => $asked->modify('+2 hours'),
            self::NEXT_DAY => $asked->modify('+20 hours'),
            default => $quote->round->replyBy()->modify('+1 day 10:00'),
        };
    }

    private static function manner(Quote $quote): string
    {
        return self::MANNERS[crc32($quote->supplier->code) % count(self::MANNERS)];
    }

    private function answer(Quote $quote): void
    {
        $manner = self::manner($quote);
        if (self::DECLINES === $manner) {
            $this->send($quote, 'supplier_quote_decline', ['reason' => 'Our order book is full until the new year.']);

            return;
        }
        $fields = [
            'lead_days' => (string) $this->leadDays($quote),
            'valid_until' => $quote->round->replyBy()->modify('+40 days')->format('Y-m-d'),
            'note' => self::NEXT_DAY === $manner ? 'Price without obligation, stock permitting.' : '',
        ];
        foreach ($quote->round->items() as $i => $item) {
            if (self::LATE === $manner && $i > 0) {
                continue;
            }
            foreach ($item->quantities() as $k => $quantity) {
                $fields[sprintf('price-%d-%d', $item->id, $k)] = number_format(
                    $this->price($quote, $item) * (1 - 0.03 * $k),
                    3,
                    '.',
                    '',
                );
            }
            if (self::ALTERNATIVE === $manner && 0 === $i) {
                $fields['alternate-'.$item->id] = 'our own make of it, same size, plain carton';
            }
            if (self::NEXT_DAY === $manner && 0 === $i) {
                $fields['most-'.$item->id] = (string) (int) ceil($item->needed()->toFloat() * 0.6);
            }
        }
        if (self::BY_FILE === $manner) {
            $this->sendFile($quote, $fields);
        } else {
            $this->send($quote, 'supplier_quote_answer', $fields);
        }
    }

    /** Some as ordered, some later, some less: each supplier in its own manner. */
    private function answerOrder(PurchaseOrder $order): void
    {
        $manner = self::MANNERS[crc32($order->supplier->code) % count(self::MANNERS)];
        $fields = ['revision' => (string) $order->revision(), 'do' => 'all'];
        $line = array_values(
            array_filter($order->lines(), static fn (OrderLine $line): bool => $line->outstanding()->isPositive()),
        )[0] ?? null;
        if (null !== $line && self::NEXT_DAY === $manner) {
            $fields = ['do' => 'lines', 'message' => 'The first line comes with the next lorry.'] + $fields;
            $fields['day'] = [$line->id => $line->wantedOn()->modify('+7 days')->format('Y-m-d')];
        } elseif (null !== $line && self::ALTERNATIVE === $manner) {
            $fields = ['do' => 'lines', 'message' => 'We can do half of the first line now.'] + $fields;
            $half = $line->outstanding()->dividedBy(2, 0, RoundingMode::Up);
            $fields['quantity'] = [$line->id => (string) $half];
        }
        $this->ask(
            Request::create(
                $this->urls->generate(
                    'supplier_order_answer',
                    ['token' => $order->token()],
                    UrlGeneratorInterface::ABSOLUTE_URL,
                ),
                'POST',
                $fields,
            ),
        );
    }

    /** @param array<string, string> $fields */
    private function send(Quote $quote, string $route, array $fields): void
    {
        $this->ask(
            Request::create(
                $this->urls->generate($route, ['token' => $quote->token()], UrlGeneratorInterface::ABSOLUTE_URL),
                'POST',
                $fields,
            ),
        );
    }

    /**
     * Fills in the file the page gives out, and brings it back.
     *
     * @param array<string, string> $fields
     */
    private function sendFile(Quote $quote, array $fields): void
    {
        $blank = (string) $this->ask(
            Request::create(
                $this->urls->generate(
                    'supplier_quote_sheet',
                    ['token' => $quote->token()],
                    UrlGeneratorInterface::ABSOLUTE_URL,
                ),
            ),
        );
        $rows = array_map(
            static fn (string $line): array => str_getcsv($line, ',', '"', ''),
            preg_split('/\R/', trim($blank)) ?: [],
        );
        $at = array_flip(array_map(strval(...), $rows[0]));
        $items = $seen = [];
        foreach ($quote->round->items() as $item) {
            $items[$item->position] = $item->id;
        }
        $file = tempnam(sys_get_temp_dir(), 'answer') ?: throw new \RuntimeException('No room for a file.');
        $out = fopen($file, 'w') ?: throw new \RuntimeException('No room for a file.');
        foreach ($rows as $n => $row) {
            if ($n > 0) {
                $id = $items[(int) $row[$at['line']]] ?? 0;
                $k = $seen[$id] = ($seen[$id] ?? -1) + 1;
                $row[$at['price']] = $fields[sprintf('price-%d-%d', $id, $k)] ?? '';
                $row[$at['lead_days']] = $fields['lead_days'];
                $row[$at['valid_until']] = $fields['valid_until'];
            }
            fputcsv($out, $row, ',', '"', '');
        }
        fclose($out);
        $this->ask(
            Request::create(
                $this->urls->generate(
                    'supplier_quote_answer',
                    ['token' => $quote->token()],
                    UrlGeneratorInterface::ABSOLUTE_URL,
                ),
                'POST',
                files: ['file' => new UploadedFile($file, $quote->round->number.'.csv', 'text/csv', null, true)],
            ),
        );
        unlink($file);
    }

    private function ask(Request $request): string|false
    {
        // Suppliers sit in different places; each is throttled for itself.
        $request->server->set('REMOTE_ADDR', '192.0.2.'.(1 + (crc32($request->getPathInfo()) % 250)));
        $response = $this->kernel->handle($request);
        if ($response->getStatusCode() >= 400) {
            throw new \RuntimeException(sprintf('The supplier’s page answered %d.', $response->getStatusCode()));
        }

        return $response->getContent();
    }

    /** About what it costs from anybody, in this one's currency: the same however often it is asked. */
    private function price(Quote $quote, QuoteItem $item): float
    {
        $rates = $this->rates->allOn($this->clock->now());
        $own = null;
        $usual = [];
        $offers = $this->entities->getRepository(Offer::class);
        foreach (null === $item->item ? [] : $offers->findBy(['item' => $item->item]) as $offer) {
            $rate = $rates[$offer->supplier->currency()->code] ?? null;
            if (null !== $rate) {
                $usual[] = $price = $offer->at($rate)->unitCost($item->needed())->toFloat();
                $own = $offer->supplier === $quote->supplier ? $price : $own;
            }
        }
        $home = $own ?? ([] === $usual ? 4.0 : (array_sum($usual) / count($usual)) * 1.03);
        $whim = 0.92 + (crc32($quote->supplier->code.$quote->round->number.$item->position) % 1400) / 10000;

        $rate = $rates[$quote->supplier->currency()->code] ?? null;

        return $home * $whim * ($rate?->foreignForOne->toFloat() ?? 1.0);
    }

    private function leadDays(Quote $quote): int
    {
        $offer = $this->entities->getRepository(Offer::class)->findOneBy(['supplier' => $quote->supplier]);

        return $offer?->leadDays() ?? 14;
    }
}
