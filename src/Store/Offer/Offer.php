<?php

declare(strict_types=1);

namespace TallBarrel\Store\Offer;

use Brick\Math\BigDecimal;
use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\Common\Collections\Collection;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Sourcing\Offer as CoreOffer;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Store\Type\BigDecimalType;

/** What one supplier asks for one item. */
#[ORM\Entity]
#[ORM\UniqueConstraint(name: 'offer_once', columns: ['supplier_id', 'item_id', 'pack_name'])]
class Offer
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Version, ORM\Column(type: 'integer')]
    private int $version = 1;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)]
    private BigDecimal $minimum;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)]
    private BigDecimal $multiple;

    #[ORM\Column]
    private bool $split = false;

    #[ORM\Column]
    private int $leadDays = 7;

    #[ORM\Column]
    private int $rank = 1;

    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $validUntil = null;

    /** Percent by which the supplier has announced to raise the price, and from when. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 5, scale: 2, nullable: true)]
    private ?BigDecimal $risePercent = null;

    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $riseOn = null;

    /** @var Collection<int, PriceBreak> */
    #[ORM\OneToMany(targetEntity: PriceBreak::class, mappedBy: 'offer', cascade: ['persist'], orphanRemoval: true)]
    #[ORM\OrderBy(['fromPacks' => 'ASC'])]
    private Collection $breaks;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)]
        public readonly Supplier $supplier,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)]
        public readonly Item $item,
        #[ORM\Column(length: 40)]
        private string $supplierCode,
        #[ORM\Column(length: 30)]
        public readonly string $packName,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)]
        private BigDecimal $packContent,
    ) {
        Pack::of($packName, $packContent);
        $this->minimum = $this->multiple = BigDecimal::one();
        $this->breaks = new ArrayCollection();
    }

    public function sellBy(BuyingRule $rule): void
    {
        $this->packContent = $rule->pack->content;
        $this->minimum = $rule->minimum;
        $this->multiple = $rule->multiple;
        $this->split = $rule->split;
    }

    public function promise(int $leadDays, int $rank, ?\DateTimeImmutable $validUntil = null): void
    {
        $this->leadDays = $leadDays;
        $this->rank = $rank;
        $this->validUntil = $validUntil;
    }

    public function price(PriceBreaks $prices): void
    {
        foreach ($prices->steps as $i => $step) {
            $existing = $this->breaks->get($i);
            if (null === $existing) {
                $this->breaks->add(new PriceBreak($this, $step['from'], $step['price']));
            } else {
                $existing->change($step['from'], $step['price']);
            }
        }
        foreach ($this->breaks->slice(count($prices->steps)) as $surplus) {
            $this->breaks->removeElement($surplus);
        }
    }

    public function announce(?BigDecimal $risePercent, ?\DateTimeImmutable $on): void
    {
        $this->risePercent = null === $on ? null : $risePercent;
        $this->riseOn = null === $risePercent ? null : $on;
    }

    /** @return array{BigDecimal, \DateTimeImmutable}|null percent and day */
    public function rise(): ?array
    {
        return null === $this->risePercent || null === $this->riseOn ? null : [$this->risePercent, $this->riseOn];
    }

    public function recode(string $supplierCode): void
    {
        $this->supplierCode = trim($supplierCode);
    }

    public function supplierCode(): string
    {
        return $this->supplierCode;
    }

    public function rule(): BuyingRule
    {
        return BuyingRule::of(Pack::of($this->packName, $this->packContent), $this->minimum, $this->multiple, $this->split);
    }

    public function prices(): PriceBreaks
    {
        return PriceBreaks::of(array_values($this->breaks->map(static fn (PriceBreak $break): array => [$break->fromPacks(), $break->price()])->toArray()));
    }

    public function leadDays(): int
    {
        return $this->leadDays;
    }

    public function rank(): int
    {
        return $this->rank;
    }

    public function validUntil(): ?\DateTimeImmutable
    {
        return $this->validUntil;
    }

    public function version(): int
    {
        return $this->version;
    }

    public function at(ExchangeRate $rate): CoreOffer
    {
        return new CoreOffer($this->id, $this->supplier->id, $this->rule(), $this->prices(), $rate, $this->rank, $this->leadDays, null === $this->risePercent || null === $this->riseOn ? null : [$this->risePercent->toFloat() / 100, $this->riseOn]);
    }
}
