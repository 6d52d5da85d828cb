<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Begin;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\Form\FormInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Problems;
use TallBarrel\Desk\Shell\CsrfGuard;
use TallBarrel\Desk\Shell\Form\Forms;
use TallBarrel\Desk\SignIn\Arrival;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Keeping\BeginBusiness;
use TallBarrel\Work\Keeping\FirstFacts;
use TallBarrel\Work\Keeping\TakeDemoAway;

/** The first evening: the business itself, and then what it still lacks. */
final class FirstEveningController extends AbstractController
{
    public function __construct(private readonly CurrentBusiness $business, private readonly Forms $forms)
    {
    }

    #[Route('/begin', name: 'begin', methods: ['GET'])]
    public function first(): Response
    {
        return null === $this->business->find()
            ? $this->page($this->forms->of(FirstFactsType::class, new FirstFacts()))
            : $this->redirectToRoute('sign_in');
    }

    #[Route('/begin', name: 'begin_save', methods: ['POST'], defaults: [CsrfGuard::OF_STRANGERS => true])]
    public function begin(Request $request, BeginBusiness $begin, Security $security, Arrival $arrival): Response
    {
        $facts = new FirstFacts();
        $form = $this->forms->of(FirstFactsType::class, $facts)->handleRequest($request);
        $owner = Forms::attempt($form, static fn (Problems $problems): ?Person => $begin->begin($facts, $problems));
        if (null === $owner) {
            return $this->page($form);
        }
        $security->login($owner, 'form_login', 'desk');
        $arrival->note($request, $owner);
        $this->addFlash('fine', sprintf('%s is open. Here is what it still lacks.', $facts->name));

        return $this->redirectToRoute('still_missing');
    }

    #[Route('/still-missing', name: 'still_missing', methods: ['GET'])]
    public function missing(StillMissing $missing): Response
    {
        return $this->render('begin/still_missing.html.twig', ['steps' => $missing->steps()]);
    }

    #[Route('/settings/demo', name: 'demo_take_away', methods: ['POST']), IsGranted('ROLE_APPROVE')]
    public function takeAway(Request $request, TakeDemoAway $take): Response
    {
        $take->take();
        $request->getSession()->invalidate();

        return $this->redirectToRoute('begin');
    }

    /** @param FormInterface<mixed> $form */
    private function page(FormInterface $form): Response
    {
        return $this->render(
            'begin/begin.html.twig',
            ['form' => $form->createView()],
            new Response(status: $form->isSubmitted() ? 422 : 200),
        );
    }
}
