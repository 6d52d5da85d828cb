<?php

declare(strict_types=1);

namespace TallBarrel\Store\Dock;

use Brick\Math\BigDecimal;
use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\Common\Collections\Collection;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Order\Despatch;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Supplier\Supplier;

/** What stands at the dock of a site: one delivery note, one or several orders of a supplier. */
#[ORM\Entity]
class Delivery
{
    private const REMEMBERED = 200;

    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Version, ORM\Column(type: 'integer')]
    private int $version = 1;

    #[ORM\Column(type: 'datetime_immutable', nullable: true)]
    private ?\DateTimeImmutable $bookedAt = null;

    /** @var Collection<int, DeliveryLine> */
    #[ORM\OneToMany(targetEntity: DeliveryLine::class, mappedBy: 'delivery', cascade: ['persist', 'remove'])]
    private Collection $lines;

    /** @var list<string> keys of the latest scans */
    #[ORM\Column(type: 'json', options: ['default' => '[]'])]
    private array $scans = [];

    #[ORM\Embedded(class: HowItCame::class, columnPrefix: false)]
    private HowItCame $came;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Supplier $supplier,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Column(length: 40)] public readonly string $noteNumber,
        #[ORM\Column(type: 'datetime_immutable')] private \DateTimeImmutable $arrivedAt,
        /** What they said was on its way, where it was begun from that. */
        #[ORM\ManyToOne] public readonly ?Despatch $advised = null,
    ) {
        $this->lines = new ArrayCollection();
        $this->came = null === $advised ? new HowItCame()
            : HowItCame::of($advised->carrier, $advised->tracking, null, null, '', null);
    }

    /** Packs of a line that they said were on their way; null if this was not begun from what they said. */
    public function advisedOf(OrderLine $line): ?BigDecimal
    {
        return null === $this->advised ? null : $this->advised->packs()[$line->id] ?? BigDecimal::zero();
    }

    /**
     * What a scanner sends again because it heard no answer counts once.
     *
     * @return bool whether it is new
     */
    public function takesScan(string $key): bool
    {
        if ('' === $key) {
            return true;
        }
        if (in_array($key, $this->scans, true)) {
            return false;
        }
        $this->scans = array_slice([...$this->scans, $key], -self::REMEMBERED);

        return true;
    }

    public function cameLike(HowItCame $came): void
    {
        $this->came = $came;
    }

    public function came(): HowItCame
    {
        return $this->came;
    }

    public function expect(OrderLine $line): void
    {
        $this->lines->add(new DeliveryLine($this, $line));
    }

    /** For another lot of what a line expects. */
    public function beside(DeliveryLine $line): DeliveryLine
    {
        $this->mustBeOpen();
        $beside = new DeliveryLine($this, $line->line, $line->beside ?? $line);
        $this->lines->add($beside);

        return $beside;
    }

    public function booked(\DateTimeImmutable $at): void
    {
        $this->mustBeOpen();
        $this->bookedAt = $at;
    }

    /** @throws Refused if it is booked in already */
    public function mustBeOpen(): void
    {
        if (null !== $this->bookedAt) {
            throw new Refused(sprintf('Delivery note %s is booked in already.', $this->noteNumber));
        }
    }

    public function arrivedAt(): \DateTimeImmutable
    {
        return $this->arrivedAt;
    }

    public function isBooked(): bool
    {
        return null !== $this->bookedAt;
    }

    public function bookedAt(): ?\DateTimeImmutable
    {
        return $this->bookedAt;
    }

    /** @return list<DeliveryLine> what is in several lots one behind the other */
    public function lines(): array
    {
        $lines = array_values($this->lines->toArray());
        $beside = array_filter($lines, static fn (DeliveryLine $line): bool => null !== $line->beside);
        $sorted = [];
        foreach ([] === $beside ? [] : array_diff_key($lines, $beside) as $line) {
            $sorted[] = $line;
            foreach ($beside as $other) {
                if ($other->beside === $line) {
                    $sorted[] = $other;
                }
            }
        }

        return [] === $beside ? $lines : $sorted;
    }

    /** @return list<PurchaseOrder> */
    public function orders(): array
    {
        $orders = [];
        foreach ($this->lines as $line) {
            $orders[$line->line->order->id] = $line->line->order;
        }

        return array_values($orders);
    }

    public function version(): int
    {
        return $this->version;
    }
}
