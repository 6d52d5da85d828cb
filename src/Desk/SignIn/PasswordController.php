<?php

declare(strict_types=1);

namespace TallBarrel\Desk\SignIn;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\RateLimiter\RateLimiterFactoryInterface;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\CsrfGuard;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\Guesses;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Keeping\ChoosePassword;
use TallBarrel\Work\Keeping\UseCodes;

/** Ways in for those who have no password yet or forgot it, and the second question of those who asked for one. */
final class PasswordController extends AbstractController
{
    public function __construct(
        private readonly ChoosePassword $passwords,
        private readonly Guesses $guesses,
        #[Autowire(service: 'limiter.way_in')] private readonly RateLimiterFactoryInterface $limiter,
    ) {
    }

    #[Route('/forgotten', name: 'forgotten', methods: ['GET'])]
    public function forgotten(): Response
    {
        return $this->render('sign_in/forgotten.html.twig', ['sent' => false]);
    }

    #[Route('/forgotten', name: 'forgotten_send', methods: ['POST'], defaults: [CsrfGuard::OF_STRANGERS => true])]
    public function send(Request $request): Response
    {
        if (!$this->limiter->create('forgotten-'.$request->getClientIp())->consume()->isAccepted()) {
            return $this->render('sign_in/forgotten.html.twig', ['sent' => false, 'often' => true], new Response(
                status: Response::HTTP_TOO_MANY_REQUESTS,
                headers: ['Retry-After' => '600'],
            ));
        }
        $this->passwords->forgot(Fields::of($request)->text('email'));

        return $this->render('sign_in/forgotten.html.twig', ['sent' => true]);
    }

    #[Route(
        '/password/{token}',
        name: 'password',
        requirements: ['token' => '[0-9a-f]{40}'],
        methods: ['GET', 'POST'],
        defaults: [CsrfGuard::OF_STRANGERS => true],
    )]
    public function choose(string $token, Request $request): Response
    {
        $fields = Fields::of($request);
        $link = null;
        $this->guesses->allow($request);
        try {
            $link = $this->passwords->link($token);
            if ($request->isMethod('POST')) {
                $password = is_string($fields->typed['password'] ?? null) ? $fields->typed['password'] : '';
                $fields->apply('password', fn () => $this->passwords->byLink($link, $password));
                if ($fields->isGood()) {
                    $this->addFlash('fine', 'Your password is set. Sign in with it.');

                    return $this->redirectToRoute('sign_in', ['email' => $link->person->email()]);
                }
            }
        } catch (Refused $refused) {
            $fields->refuse('link', $refused->getMessage());
            $this->guesses->note($request);
        }

        return $this->render(
            'sign_in/password.html.twig',
            ['link' => $link, 'fields' => $fields, 'least' => ChoosePassword::LEAST],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    #[Route('/sign-in/code', name: 'sign_in_code', methods: ['GET'])]
    public function askForCode(Request $request): Response
    {
        return true === $request->getSession()->get(Arrival::CODE_DUE)
            ? $this->render('sign_in/code.html.twig', ['problem' => ''])
            : $this->redirectToRoute('today');
    }

    #[Route('/sign-in/code', name: 'sign_in_code_check', methods: ['POST'])]
    public function checkCode(
        Request $request,
        UseCodes $codes,
        Welcome $welcome,
        ClockInterface $clock,
        #[CurrentUser] Person $person,
    ): Response {
        $limit = $this->limiter->create('code-'.$person->id);
        if (!$limit->consume()->isAccepted()) {
            return $this->render(
                'sign_in/code.html.twig',
                ['problem' => 'Too many tries. Wait ten minutes, then try again.'],
                new Response(status: Response::HTTP_TOO_MANY_REQUESTS, headers: ['Retry-After' => '600']),
            );
        }
        if (!$codes->take($person, Fields::of($request)->text('code', 20))) {
            return $this->render(
                'sign_in/code.html.twig',
                ['problem' => 'That is not the code of this half minute. Take the one that shows now.'],
                new Response(status: 422),
            );
        }
        $limit->reset();
        $request->getSession()->remove(Arrival::CODE_DUE);

        return $welcome->onward($request);
    }
}
