<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Form\FormInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Problems;
use TallBarrel\Desk\Shell\Form\Forms;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Store\Site\SiteWays;
use TallBarrel\Work\Keeping\SetWays;

/** How goods get from one site to another: what planning weighs before it moves stock instead of buying. */
#[Route('/settings/ways')]
final class WaysController extends AbstractController
{
    public function __construct(
        private readonly Sites $sites,
        private readonly SiteWays $ways,
        private readonly Forms $forms,
    ) {
    }

    #[Route('', name: 'ways', methods: ['GET'])]
    public function show(): Response
    {
        $entry = $this->entry();

        return $this->page($entry, $this->forms->of(WaysType::class, $entry));
    }

    #[Route('', name: 'ways_save', methods: ['POST']), IsGranted('ROLE_APPROVE')]
    public function save(Request $request, SetWays $set): Response
    {
        $entry = $this->entry();
        $form = $this->forms->of(WaysType::class, $entry)->handleRequest($request);
        Forms::attempt($form, static fn (Problems $problems) => $set->set($entry->days, $entry->costs, $problems));
        if (!$form->isSubmitted() || !$form->isValid()) {
            return $this->page($entry, $form);
        }
        $this->addFlash('fine', 'Saved. What is moved between sites is being planned again.');

        return $this->redirectToRoute('ways');
    }

    private function entry(): WaysEntry
    {
        return new WaysEntry($this->sites->all(), $this->ways->all());
    }

    /** @param FormInterface<mixed> $form */
    private function page(WaysEntry $entry, FormInterface $form): Response
    {
        return $this->render(
            'settings/ways.html.twig',
            ['pairs' => $entry->pairs, 'form' => $form->createView()],
            new Response(status: $form->isSubmitted() ? 422 : 200),
        );
    }
}
