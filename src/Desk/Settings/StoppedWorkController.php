<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Keeping\Condition;

#[Route('/stopped-work'), IsGranted('ROLE_IMPORT')]
final class StoppedWorkController extends AbstractController
{
    public function __construct(private readonly StoppedWork $stopped, private readonly Audit $audit)
    {
    }

    #[Route('', name: 'stopped_work', methods: ['GET'])]
    public function list(Condition $condition): Response
    {
        $figures = $condition->figures();
        [$broken, $look] = Condition::judge($figures);

        return $this->render('settings/stopped_work.html.twig', [
            'entries' => $this->stopped->all(),
            'figures' => $figures,
            'broken' => $broken,
            'look' => $look,
        ]);
    }

    #[Route('/{id}/again', name: 'stopped_again', requirements: ['id' => '\d{1,18}'], methods: ['POST'])]
    public function again(int $id): Response
    {
        return $this->settle(
            fn () => $this->stopped->again($id),
            'It is tried again; if it stops once more, it comes back here.',
        );
    }

    #[Route('/{id}/drop', name: 'stopped_drop', requirements: ['id' => '\d{1,18}'], methods: ['POST'])]
    public function drop(int $id, #[CurrentUser] Person $person): Response
    {
        return $this->settle(function () use ($id, $person): void {
            $this->stopped->drop($id);
            $this->audit->note($person, 'stopped work', sprintf('Dropped number %d', $id));
            $this->audit->keep();
        }, 'It is dropped; nobody tries it again.');
    }

    /** @param callable(): void $act */
    private function settle(callable $act, string $words): Response
    {
        try {
            $act();
            $this->addFlash('fine', $words);
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }

        return $this->redirectToRoute('stopped_work');
    }
}
