<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Business\ReasonKind;
use TallBarrel\Store\Business\Reasons;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Keeping\KeepReasons;

/** Reasons that can be chosen where somebody has to say why. */
#[Route('/settings/reasons')]
final class ReasonsController extends AbstractController
{
    private const LONGEST = 4000;

    public function __construct(private readonly Reasons $reasons)
    {
    }

    #[Route('', name: 'reasons', methods: ['GET'])]
    public function show(): Response
    {
        return $this->page(Fields::none());
    }

    #[Route('', name: 'reasons_save', methods: ['POST']), IsGranted('ROLE_APPROVE')]
    public function save(Request $request, KeepReasons $keep, #[CurrentUser] Person $by): Response
    {
        $fields = Fields::of($request);
        $lines = [];
        foreach (ReasonKind::cases() as $kind) {
            $lines[$kind->value] = $fields->text($kind->value, self::LONGEST);
        }
        $keep->set($lines, $by, $fields->problems);
        if (!$fields->isGood()) {
            return $this->page($fields);
        }
        $this->addFlash('fine', 'Saved. What was said with an old reason stays as it was.');

        return $this->redirectToRoute('reasons');
    }

    private function page(Fields $fields): Response
    {
        $kinds = [];
        foreach (ReasonKind::cases() as $kind) {
            $kinds[] = ['of' => $kind, 'words' => $this->reasons->words($kind)];
        }

        return $this->render(
            'settings/reasons.html.twig',
            ['kinds' => $kinds, 'fields' => $fields],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }
}
