<?php

declare(strict_types=1);

namespace TallBarrel\Store\Agreement;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Supplier\Supplier;

/** The agreements there are and what has been drawn on them. */
final readonly class Agreements
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<Agreement> those that last longest first */
    public function all(?Supplier $supplier = null): array
    {
        /** @var list<Agreement> $agreements */
        $agreements = $this->entities
            ->createQuery(
                'SELECT a, s, i FROM '.
                    Agreement::class.
                    ' a JOIN a.supplier s LEFT JOIN a.item i ORDER BY a.ended, a.lastDay DESC, a.id',
            )
            ->getResult();

        return null === $supplier
            ? $agreements
            : array_values(
                array_filter($agreements, static fn (Agreement $one): bool => $one->supplier === $supplier),
            );
    }

    public function byNumber(string $number): ?Agreement
    {
        return $this->entities->getRepository(Agreement::class)->findOneBy(['number' => $number]);
    }

    /**
     * The one an order line draws on: for the item itself before one for its category, the first to end before others.
     */
    public function fitting(Supplier $supplier, Item $item, \DateTimeImmutable $day): ?Agreement
    {
        $fitting = array_values(
            array_filter(
                $this->all($supplier),
                static fn (Agreement $agreement): bool => $agreement->isInForce($day) && $agreement->covers($item),
            ),
        );
        usort(
            $fitting,
            static fn (Agreement $a, Agreement $b): int => [
                null === $a->item,
                '' === $a->category,
                $a->lastDay(),
                $a->id,
            ] <=> [null === $b->item, '' === $b->category, $b->lastDay(), $b->id],
        );

        return $fitting[0] ?? null;
    }

    /** Lets a draft's line draw on the agreement that fits, at its price. */
    public function attach(OrderLine $line, \DateTimeImmutable $day): void
    {
        $agreement = null === $line->item ? null : $this->fitting($line->order->supplier, $line->item, $day);
        if (null !== $agreement) {
            $line->drawOn(
                $agreement,
                $agreement
                    ->price()
                    ?->multipliedBy($line->pack()->content)
                    ->toScale(6, RoundingMode::HalfUp)
                    ->strippedOfTrailingZeros(),
            );
        }
    }

    /**
     * Drawn counts what is on sent orders and was not closed short; drafted what still waits to be sent.
     *
     * @return array<int, array{drawn: float, received: float, drafted: float, lines: int}> by agreement, in its measure
     */
    public function drawn(?Agreement $only = null): array
    {
        $sent = Orders::openStates().", 'received', 'closed'";
        /** @var list<array{id: int, drawn: string|null, received: string|null, drafted: string|null, n: int}> $rows */
        $rows = $this->entities->getConnection()->fetchAllAssociative(
            "SELECT a.id, COUNT(l.id) n,
                    SUM(IF(o.state IN ({$sent}), l.packs - l.closed_short, 0)
                        * IF(a.measure = 'value', l.price, l.pack_content)) drawn,
                    SUM(IF(o.state IN ({$sent}), l.received, 0) * IF(a.measure = 'value', l.price,
                        l.pack_content)) received,
                    SUM(IF(o.state IN ('draft', 'awaiting-approval', 'approved'), l.packs, 0) * IF(a.measure = 'value',
                    l.price, l.pack_content)) drafted
             FROM agreement a LEFT JOIN order_line l ON l.agreement_id = a.id
             LEFT JOIN purchase_order o ON o.id = l.order_id
             WHERE ? = 0 OR a.id IN (?) GROUP BY a.id",
            [null === $only ? 0 : 1, [$only->id ?? 0]],
            [1 => ArrayParameterType::INTEGER],
        );
        $drawn = [];
        foreach ($rows as $row) {
            $drawn[$row['id']] = [
                'drawn' => (float) $row['drawn'],
                'received' => (float) $row['received'],
                'drafted' => (float) $row['drafted'],
                'lines' => $row['n'],
            ];
        }

        return $drawn;
    }

    /**
     * Why a draft may not go out without a second look at its agreements: it would draw more than was promised, or less
     * than the smallest call-off.
     *
     * @param list<OrderLine> $lines
     *
     * @return list<string>
     */
    public function objections(array $lines, \DateTimeImmutable $today): array
    {
        $wanted = $agreements = [];
        foreach ($lines as $line) {
            $agreement = $line->agreement();
            if (null !== $agreement) {
                $agreements[$agreement->id] = $agreement;
                $amount =
                    Agreement::VALUE === $agreement->measure()
                        ? $line->total()->amount
                        : $line->pack()->toStockUnits($line->packs());
                $wanted[$agreement->id] = ($wanted[$agreement->id] ?? BigDecimal::zero())->plus($amount);
            }
        }
        $objections = [];
        foreach ($agreements as $id => $agreement) {
            $pace = $agreement->pace($this->drawn($agreement)[$id]['drawn'], $today);
            $more = $wanted[$id]->toFloat();
            if ($more > $pace->room() + 1e-6) {
                $objections[] = sprintf(
                    '%s leaves %s %s, tolerance counted; this order draws %s.',
                    $agreement->number,
                    number_format($pace->room()),
                    $agreement->unit(),
                    number_format($more),
                );
            }
            if (null !== $agreement->minimumCallOff() && $more < $agreement->minimumCallOff()->toFloat()) {
                $objections[] = sprintf(
                    '%s asks for call-offs of at least %s %s; this order draws %s.',
                    $agreement->number,
                    number_format($agreement->minimumCallOff()->toFloat()),
                    $agreement->unit(),
                    number_format($more),
                );
            }
        }

        return $objections;
    }
}
