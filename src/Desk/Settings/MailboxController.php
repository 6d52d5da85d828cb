<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use TallBarrel\Store\Order\SentLetters;

#[Route('/mailbox')]
final class MailboxController extends AbstractController
{
    #[Route('', name: 'mailbox', methods: ['GET'])]
    public function letters(SentLetters $mailbox): Response
    {
        return $this->render('settings/mailbox.html.twig', ['letters' => $mailbox->letters()]);
    }

    #[Route('/{name}.eml', name: 'mailbox_letter', methods: ['GET'])]
    public function letter(string $name, SentLetters $mailbox): Response
    {
        $eml = $mailbox->eml($name) ?? throw $this->createNotFoundException('There is no such message.');

        return new Response($eml, 200, ['Content-Type' => 'message/rfc822', 'Content-Disposition' => HeaderUtils::makeDisposition('attachment', $name.'.eml')]);
    }
}
