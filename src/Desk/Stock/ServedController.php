<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Stock;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Store\Stock\Served;
use TallBarrel\Store\Stock\ServedDemand;

/** What customers wanted and did not find, in money. */
final class ServedController extends AbstractController
{
    public const WEEKS = 12;
    private const WAYS = [
        ServedDemand::SITE => 'By site',
        ServedDemand::CATEGORY => 'By category',
        ServedDemand::SUPPLIER => 'By supplier',
        ServedDemand::ITEM => 'By item',
    ];

    #[Route('/stock/served', name: 'served', methods: ['GET'])]
    public function show(Request $request, ServedDemand $served, Shell $shell, ClockInterface $clock): Response
    {
        $by = $request->query->getString('by');
        $by = match ($by) {
            ServedDemand::CATEGORY, ServedDemand::SUPPLIER, ServedDemand::ITEM => $by,
            default => ServedDemand::SITE,
        };
        $parts = $served->by($by, $clock->now(), self::WEEKS, $shell->site()?->id);

        return $this->render('stock/served.html.twig', [
            'parts' => ServedDemand::ITEM === $by
                ? array_values(array_filter($parts, static fn (Served $one): bool => $one->missed >= 0.005))
                : $parts,
            'all' => Served::together($parts),
            'by' => $by,
            'ways' => self::WAYS,
            'weeks' => self::WEEKS,
        ]);
    }
}
