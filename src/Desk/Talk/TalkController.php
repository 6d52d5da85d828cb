<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Talk;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Keeping\TalkAbout;

/** What colleagues say to each other about an order, an item or a delivery. */
#[Route('/talk')]
final class TalkController extends AbstractController
{
    public function __construct(private readonly TalkAbout $talk, private readonly Talk $subjects)
    {
    }

    #[Route('', name: 'talk_say', methods: ['POST'])]
    public function say(Request $request, EntityManagerInterface $entities, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $subject = $fields->text('subject', 60);
        if (!$this->subjects->isThere($subject)) {
            throw $this->createNotFoundException('There is nothing like that to talk about.');
        }
        $to = '' === $fields->text('to') ? null : $entities->find(Person::class, (int) $fields->text('to'));
        try {
            $about = $this->subjects->part($subject, $fields->text('about', 10));
            $this->talk->say($subject, $person, $fields->text('words', 5000), $to, $about);
            $this->addFlash(
                'fine',
                null === $to ? 'Said.' : sprintf('%s sees it on Today.', $to->firstName()),
            );
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
            $this->addFlash('unsaid', $fields->text('words', 5000));
        }

        return $this->redirect($this->subjects->path($subject).'#talk');
    }

    #[Route('/{id}/settle', name: 'talk_settle', requirements: ['id' => '\d+'], methods: ['POST'])]
    public function settle(int $id, #[CurrentUser] Person $person): Response
    {
        try {
            return $this->redirect($this->subjects->path($this->talk->settle($id, $person)->subject).'#talk');
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());

            return $this->redirectToRoute('today');
        }
    }
}
