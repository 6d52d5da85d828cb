<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Day;
use TallBarrel\Core\Money\AllowanceCharge;
use TallBarrel\Core\Money\DocumentSums;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Ordering\LineWish;
use TallBarrel\Store\Person\Person;

/**
 * A revision in draft beside the order in force: what its lines are to become. Nothing of it counts until it is sent.
 *
 * @phpstan-import-type WishData from LineWish
 * @phpstan-import-type AllowanceChargeData from AllowanceCharge
 */
#[ORM\Entity]
class OrderAmendment
{
    #[ORM\Version, ORM\Column(type: 'integer')]
    private int $version = 1;

    /** @var list<WishData> */
    #[ORM\Column(type: 'json')]
    private array $wishes = [];

    /** @var list<AllowanceChargeData> */
    #[ORM\Column(type: 'json')]
    private array $adjustments = [];

    #[ORM\Column(type: 'date_immutable')]
    private \DateTimeImmutable $wantedOn;

    #[ORM\Column(length: 500)]
    private string $note;

    /** Whether it waits for somebody with a higher limit. */
    #[ORM\Column]
    private bool $waiting = false;

    public function __construct(
        #[ORM\Id, ORM\OneToOne, ORM\JoinColumn(nullable: false)] public readonly PurchaseOrder $order,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] private Person $by,
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $begunAt,
        /** The revision it changes. */
        #[ORM\Column] public readonly int $revision,
    ) {
        $this->wantedOn = $order->wantedOn();
        $this->note = $order->note();
        $this->adjust($order->adjustments());
        $this->wish(
            array_map(
                static fn (OrderLine $line): LineWish => new LineWish(
                    $line->id,
                    null,
                    '',
                    $line->packs(),
                    $line->price(),
                    $line->hasOwnDay() ? $line->wantedOn() : null,
                    $line->site->id,
                ),
                $order->lines(),
            ),
        );
    }

    /** @param list<LineWish> $wishes */
    private function wish(array $wishes): void
    {
        $this->wishes = array_map(static fn (LineWish $wish): array => $wish->toArray(), $wishes);
    }

    /** @param list<AllowanceCharge> $adjustments */
    private function adjust(array $adjustments): void
    {
        $this->adjustments = array_map(
            static fn (AllowanceCharge $adjustment): array => $adjustment->toArray(),
            $adjustments,
        );
    }

    /** @return list<AllowanceCharge> */
    public function adjustments(): array
    {
        return array_map(AllowanceCharge::fromArray(...), $this->adjustments);
    }

    /**
     * @param list<LineWish>   $wishes      of every line there is to be
     * @param list<AllowanceCharge> $adjustments all there are to be
     */
    public function change(
        array $wishes,
        array $adjustments,
        \DateTimeImmutable $wantedOn,
        string $note,
        Person $by,
    ): void {
        $this->wish($wishes);
        $this->adjust($adjustments);
        $this->wantedOn = $wantedOn;
        $this->note = trim($note);
        $this->by = $by;
        $this->waiting = false;
    }

    public function awaitYes(): void
    {
        $this->waiting = true;
    }

    public function isWaiting(): bool
    {
        return $this->waiting;
    }

    /** @return list<LineWish> */
    public function wishes(): array
    {
        return array_map(LineWish::fromArray(...), $this->wishes);
    }

    /** What is wished of a line of the order. */
    public function of(OrderLine $line): ?LineWish
    {
        foreach ($this->wishes() as $wish) {
            if ($wish->line === $line->id) {
                return $wish;
            }
        }

        return null;
    }

    /** Whether a wish for the line differs from what is in force. */
    public function differsIn(OrderLine $line): bool
    {
        $wish = $this->of($line);

        return null !== $wish
            && (!$wish->packs->isEqualTo($line->packs())
                || !$wish->price->isEqualTo($line->price())
                || !Day::isSame($wish->day ?? $this->wantedOn, $line->wantedOn()));
    }

    /** What it will come to. */
    public function totals(): DocumentSums
    {
        $taxes = [];
        foreach ($this->order->lines() as $line) {
            $taxes[$line->id] = $line->tax();
        }

        return DocumentSums::of(
            $this->order->currency,
            array_map(
                fn (LineWish $wish): array => [
                    Money::of($wish->packs->multipliedBy($wish->price), $this->order->currency),
                    $taxes[$wish->line ?? 0] ?? $this->order->tax(),
                ],
                $this->wishes(),
            ),
            $this->adjustments(),
        );
    }

    public function wantedOn(): \DateTimeImmutable
    {
        return $this->wantedOn;
    }

    public function note(): string
    {
        return $this->note;
    }

    public function by(): Person
    {
        return $this->by;
    }

    public function version(): int
    {
        return $this->version;
    }
}
