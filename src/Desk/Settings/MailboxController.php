<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Work\Ordering\SentLetters;
use TallBarrel\Work\Sourcing\AnswersWanted;

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
    public function answers(MessageBusInterface $bus): Response
    {
        $bus->dispatch(new AnswersWanted());
        $this->addFlash(
            'fine',
            'The stand-in suppliers have been told to answer; their answers come in within seconds.',
        );

        return $this->redirectToRoute('rounds');
    }

    #[Route('/{name}.eml', name: 'mailbox_letter', methods: ['GET'])]
    public function letter(string $name, SentLetters $mailbox): Response
    {
        $eml = $mailbox->eml($name) ?? throw $this->createNotFoundException('There is no such message.');

        return new Response($eml, 200, [
            'Content-Type' => 'message/rfc822',
            'Content-Disposition' => HeaderUtils::makeDisposition('attachment', $name.'.eml'),
        ]);
    }
}
