<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settle;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\BroughtFile;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Settling\MatchStatement;
use TallBarrel\Work\Settling\Payout;
use TallBarrel\Work\Settling\SettleInvoice;
use TallBarrel\Work\Settling\StatementMatch;

/** What left our account, read from the bank's statement and noted as paid where somebody says so. */
#[Route('/settle/statement')]
#[AboutMoney, IsGranted('ROLE_RELEASE')]
final class StatementController extends AbstractController
{
    public function __construct(private readonly MatchStatement $match, private readonly SettleInvoice $settle)
    {
    }

    #[Route('', name: 'statement', methods: ['GET'])]
    public function ask(): Response
    {
        return $this->page(Fields::none(), null);
    }

    #[Route('', name: 'statement_read', methods: ['POST'])]
    public function read(Request $request): Response
    {
        $fields = Fields::of($request);
        $bytes = $fields->attempt('file', static fn (): ?string => BroughtFile::in($request, 'file'));
        if (null === $bytes) {
            if ($fields->isGood()) {
                $fields->refuse('file', 'Choose the statement.');
            }

            return $this->page($fields, null);
        }
        $found = null;
        try {
            $name = BroughtFile::named($request, 'file');
            $found = $fields->attempt('file', fn (): array => $this->match->match($name, $bytes));
        } catch (Refused $refused) {
            $fields->refuse('file', $refused->getMessage());
        }

        return $this->page($fields, $found);
    }

    /** Each payment for itself: what one refuses does not hold up the others. */
    #[Route('/note', name: 'statement_note', methods: ['POST'])]
    public function note(Request $request, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        [$invoices, $credits] = [$fields->each('invoices'), $fields->each('credits')];
        [$days, $amounts] = [$fields->each('day'), $fields->each('amount')];
        [$currencies, $references] = [$fields->each('currency'), $fields->each('reference')];
        $noted = 0;
        foreach (array_keys($fields->each('note')) as $n) {
            $amount = $fields->price('amount-'.$n, $amounts[$n] ?? '');
            $day = $fields->day('day-'.$n, $days[$n] ?? '');
            if (null === $amount || null === $day) {
                continue;
            }
            try {
                $payout = new Payout(Money::of($amount, $currencies[$n] ?? ''), $references[$n] ?? '');
                $this->settle->pay(
                    self::seen($invoices[$n] ?? ''),
                    $day,
                    $person,
                    self::seen($credits[$n] ?? ''),
                    $payout,
                );
                ++$noted;
            } catch (Refused $refused) {
                $this->addFlash('short', $refused->getMessage());
            }
        }
        $this->addFlash(
            $noted > 0 ? 'fine' : 'short',
            $noted > 0 ? sprintf('Noted as paid: %d.', $noted) : 'Nothing was noted.',
        );

        return $this->redirectToRoute('payments');
    }

    /** @return list<array{int, int}> ids with the versions seen, from "12:3 14:1" */
    private static function seen(string $typed): array
    {
        preg_match_all('/(\d{1,9}):(\d{1,9})/', $typed, $found, \PREG_SET_ORDER);

        return array_map(static fn (array $one): array => [(int) $one[1], (int) $one[2]], $found);
    }

    /** @param list<StatementMatch>|null $found */
    private function page(Fields $fields, ?array $found): Response
    {
        return $this->render(
            'settle/statement.html.twig',
            ['fields' => $fields, 'found' => $found],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }
}
