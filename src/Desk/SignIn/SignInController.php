<?php

declare(strict_types=1);

namespace TallBarrel\Desk\SignIn;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use TallBarrel\Desk\Shell\CsrfGuard;

final class SignInController extends AbstractController
{
    #[Route('/sign-in', name: 'sign_in', methods: ['GET', 'POST'], defaults: [CsrfGuard::OF_STRANGERS => true])]
    public function signIn(Request $request): Response
    {
        if (null !== $this->getUser()) {
            return $this->redirectToRoute('today');
        }

        return $this->render('sign_in/sign_in.html.twig', [
            'email' => mb_substr(mb_scrub($request->query->getString('email')), 0, 180),
            'error' => '',
            'kept' => $request->hasPreviousSession() && $request->getSession()->has(EndedSession::KEPT),
            'to' => Welcome::wanted($request),
        ]);
    }

    /** What was being typed when the session ended, ready to be sent again. */
    #[Route('/kept', name: 'kept_form', methods: ['GET'])]
    public function kept(Request $request): Response
    {
        $kept = $request->getSession()->remove(EndedSession::KEPT);
        if (!is_array($kept)) {
            return $this->redirectToRoute('today');
        }

        return $this->render('sign_in/kept.html.twig', [
            'path' => $kept['path'],
            'page' => $kept['page'],
            'fields' => self::flat($kept['fields']),
        ]);
    }

    /**
     * @return array<string, string> "quantity[12]" => "3"
     */
    private static function flat(mixed $fields, string $under = ''): array
    {
        $flat = [];
        foreach (is_array($fields) ? $fields : [] as $name => $value) {
            $path = '' === $under ? (string) $name : $under.'['.$name.']';
            $flat += is_array($value) ? self::flat($value, $path) : [$path => is_scalar($value) ? (string) $value : ''];
        }

        return $flat;
    }
}
