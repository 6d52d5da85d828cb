<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use TallBarrel\Store\Site\Sites;

final class ShellController extends AbstractController
{
    #[Route('/look-at', name: 'look_at', methods: ['POST'])]
    public function lookAt(Request $request, Shell $shell, Sites $sites): Response
    {
        $shell->lookAt($sites->find($request->request->getInt('site')));
        $back = (string) parse_url($request->headers->get('Referer', '/'), \PHP_URL_PATH);

        return $this->redirect('' === $back ? '/' : $back);
    }

    #[Route('/find', name: 'find', methods: ['GET'])]
    public function find(Request $request, Finder $finder): Response
    {
        $words = trim($request->query->getString('q'));

        return $this->render($request->headers->has('HX-Request') ? '_parts/found.html.twig' : 'find.html.twig', [
            'words' => $words,
            'found' => $finder->find($words),
        ]);
    }
}
