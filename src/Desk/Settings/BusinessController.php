<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Form\FormInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Problems;
use TallBarrel\Desk\Shell\BroughtFile;
use TallBarrel\Desk\Shell\Form\Forms;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Keeping\BusinessDetails;
use TallBarrel\Work\Keeping\DescribeBusiness;

/** The business itself, and its paper. */
#[Route('/settings/business')]
final class BusinessController extends AbstractController
{
    public function __construct(private readonly CurrentBusiness $business, private readonly Forms $forms)
    {
    }

    #[Route('', name: 'business', methods: ['GET'])]
    public function show(): Response
    {
        return $this->page($this->form(BusinessDetails::of($this->business->get())));
    }

    #[Route('', name: 'business_save', methods: ['POST']), IsGranted('ROLE_APPROVE')]
    public function save(Request $request, DescribeBusiness $describe, #[CurrentUser] Person $by): Response
    {
        $details = BusinessDetails::of($this->business->get());
        $form = $this->form($details)->handleRequest($request);
        Forms::attempt($form, static function (Problems $problems) use ($details, $describe, $request, $by): void {
            $details->logo = $problems->attempt('logo', static fn (): ?string => BroughtFile::in($request, 'logo'));
            $describe->describe($details, $by, $problems);
        });
        if (!$form->isSubmitted() || !$form->isValid()) {
            return $this->page($form);
        }
        $this->addFlash('fine', 'Saved. It stands on every paper from now on.');

        return $this->redirectToRoute('business');
    }

    #[Route('/logo', name: 'business_logo', methods: ['GET'])]
    public function logo(): Response
    {
        $logo = $this->business->get()->logo() ?? throw $this->createNotFoundException('There is no logo.');

        return new Response($logo->content(), headers: ['Content-Type' => $logo->mime]);
    }

    /** @return FormInterface<mixed> */
    private function form(BusinessDetails $details): FormInterface
    {
        return $this->forms->of(BusinessType::class, $details);
    }

    /** @param FormInterface<mixed> $form */
    private function page(FormInterface $form): Response
    {
        return $this->render(
            'settings/business.html.twig',
            ['business' => $this->business->get(), 'form' => $form->createView()],
            new Response(status: $form->isSubmitted() ? 422 : 200),
        );
    }
}
