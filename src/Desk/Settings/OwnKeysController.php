<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Form\FormInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use TallBarrel\Core\Problems;
use TallBarrel\Desk\Shell\Form\Forms;
use TallBarrel\Store\Person\KeyAct;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Keeping\ChooseKeys;

/** Which keys do something by themselves; everybody's own. */
#[Route('/settings/keys')]
final class OwnKeysController extends AbstractController
{
    public function __construct(private readonly Forms $forms)
    {
    }

    #[Route('', name: 'own_keys', methods: ['GET'])]
    public function show(#[CurrentUser] Person $person): Response
    {
        return $this->page($this->forms->of(OwnKeysType::class, new OwnKeysEntry($person->keys()->all())));
    }

    #[Route('', name: 'own_keys_save', methods: ['POST'])]
    public function save(#[CurrentUser] Person $person, Request $request, ChooseKeys $choose): Response
    {
        $entry = new OwnKeysEntry($person->keys()->all());
        $form = $this->forms->of(OwnKeysType::class, $entry)->handleRequest($request);
        Forms::attempt($form, static fn (Problems $problems) => $choose->choose($person, $entry->keys, $problems));
        if (!$form->isSubmitted() || !$form->isValid()) {
            return $this->page($form);
        }
        $this->addFlash('fine', 'Your keys are saved.');

        return $this->redirectToRoute('own_keys');
    }

    /** @param FormInterface<mixed> $form */
    private function page(FormInterface $form): Response
    {
        return $this->render(
            'settings/own_keys.html.twig',
            ['acts' => KeyAct::cases(), 'form' => $form->createView()],
            new Response(status: $form->isSubmitted() ? 422 : 200),
        );
    }
}
