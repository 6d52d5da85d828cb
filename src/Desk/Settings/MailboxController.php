<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Store\Order\SentLetters;
use TallBarrel\Store\Quote\Correspondents;

#[Route('/mailbox')]
final class MailboxController extends AbstractController
{
    #[Route('', name: 'mailbox', methods: ['GET'])]
    public function letters(SentLetters $mailbox): Response
    {
        return $this->render('settings/mailbox.html.twig', ['letters' => $mailbox->letters()]);
    }

    /** The stand-in suppliers need not wait until their time has come. */
    #[Route('/answers', name: 'mailbox_answers', methods: ['POST']), IsGranted('ROLE_BUY')]
    public function answers(Correspondents $correspondents): Response
    {
        $answered = $correspondents->answerDue(true);
        $this->addFlash($answered > 0 ? 'fine' : 'watch', $answered > 0 ? sprintf('%d stand-in suppliers have answered.', $answered) : 'No stand-in supplier has a question open.');

        return $this->redirectToRoute('rounds');
    }

    #[Route('/{name}.eml', name: 'mailbox_letter', methods: ['GET'])]
    public function letter(string $name, SentLetters $mailbox): Response
    {
        $eml = $mailbox->eml($name) ?? throw $this->createNotFoundException('There is no such message.');

        return new Response($eml, 200, ['Content-Type' => 'message/rfc822', 'Content-Disposition' => HeaderUtils::makeDisposition('attachment', $name.'.eml')]);
    }
}
