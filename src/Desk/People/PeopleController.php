<?php

declare(strict_types=1);

namespace TallBarrel\Desk\People;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Form\FormInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\Form\Forms;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Person\Visits;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Work\Keeping\KeepPerson;
use TallBarrel\Work\Keeping\PersonDetails;

/** Who works here, what they may do, and whether they can come in. */
#[Route('/settings/people')]
final class PeopleController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Sites $sites,
        private readonly Visits $visits,
        private readonly Audit $audit,
        private readonly KeepPerson $keep,
        private readonly Forms $forms,
    ) {
    }

    #[Route('', name: 'people', methods: ['GET'])]
    public function list(): Response
    {
        return $this->all($this->form(new PersonDetails()));
    }

    #[Route('', name: 'person_invite', methods: ['POST']), IsGranted('ROLE_APPROVE')]
    public function invite(Request $request, #[CurrentUser] Person $by): Response
    {
        $details = new PersonDetails();
        $form = $this->form($details)->handleRequest($request);
        $person = Forms::attempt(
            $form,
            fn (Problems $problems): ?Person => $this->keep->invite($details, $by, $problems),
        );
        if (null === $person) {
            return $this->all($form);
        }
        $this->addFlash('fine', sprintf(
            '%s is invited: a letter to %s carries the link to choose a password.',
            $person->name(),
            $person->email(),
        ));

        return $this->redirectToRoute('person', ['id' => $person->id]);
    }

    #[Route('/{id}', name: 'person', requirements: ['id' => '\d{1,9}'], methods: ['GET'])]
    public function show(int $id): Response
    {
        $person = $this->find($id);

        return $this->one($person, $this->form(PersonDetails::of($person, $this->sites->all()), $person));
    }

    #[Route('/{id}', name: 'person_save', requirements: ['id' => '\d{1,9}'], methods: ['POST']),
        IsGranted('ROLE_APPROVE')]
    public function save(int $id, Request $request, #[CurrentUser] Person $by): Response
    {
        $person = $this->find($id);
        $details = PersonDetails::of($person, $this->sites->all());
        $form = $this->form($details, $person)->handleRequest($request);
        Forms::attempt($form, fn (Problems $problems) => $this->keep->change($person, $details, $by, $problems));
        if (!$form->isSubmitted() || !$form->isValid()) {
            return $this->one($person, $form);
        }
        $this->addFlash('fine', $details->name.' is saved.');

        return $this->redirectToRoute('person', ['id' => $id]);
    }

    /** What a button beside a person does. */
    #[Route(
        '/{id}/{act}',
        name: 'person_act',
        requirements: ['id' => '\d{1,9}', 'act' => 'block|unblock|link|codes'],
        methods: ['POST'],
    ), IsGranted('ROLE_APPROVE')]
    public function act(int $id, string $act, #[CurrentUser] Person $by): Response
    {
        $person = $this->find($id);
        try {
            match ($act) {
                'block' => $this->keep->block($person, $by),
                'unblock' => $this->keep->unblock($person, $by),
                'codes' => $this->keep->dropCodes($person, $by),
                default => $this->keep->inviteAgain($person, $by),
            };
            $this->addFlash('fine', sprintf(match ($act) {
                'block' => '%s can no longer sign in, and is signed out everywhere.',
                'unblock' => '%s can sign in again.',
                'codes' => '%s is asked for no code any more.',
                default => 'A letter with a new link is on its way to %s.',
            }, $person->name()));
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }

        return $this->redirectToRoute('person', ['id' => $id]);
    }

    /** @return FormInterface<mixed> */
    private function form(PersonDetails $details, ?Person $person = null): FormInterface
    {
        return $this->forms->of(PersonType::class, $details, [
            'people' => array_values(
                array_filter(
                    $this->people(),
                    static fn (Person $one): bool => $one->mayApprove() && $one !== $person && !$one->isBlocked(),
                ),
            ),
            'sites' => $this->sites->all(),
        ]);
    }

    /** @return list<Person> */
    private function people(): array
    {
        return array_values($this->entities->getRepository(Person::class)->findBy([], ['name' => 'ASC']));
    }

    /** @param FormInterface<mixed> $form */
    private function all(FormInterface $form): Response
    {
        return $this->render(
            'people/people.html.twig',
            ['people' => $this->people(), 'form' => $form->createView()],
            new Response(status: $form->isSubmitted() ? 422 : 200),
        );
    }

    /** @param FormInterface<mixed> $form */
    private function one(Person $person, FormInterface $form): Response
    {
        return $this->render(
            'people/person.html.twig',
            [
                'person' => $person,
                'form' => $form->createView(),
                'visits' => $this->isGranted('ROLE_APPROVE') ? $this->visits->of($person) : [],
                'history' => $this->audit->of('person '.$person->id, 20),
            ],
            new Response(status: $form->isSubmitted() ? 422 : 200),
        );
    }

    private function find(int $id): Person
    {
        return $this->entities->find(Person::class, $id)
            ?? throw $this->createNotFoundException('There is no such person.');
    }
}
