<?php

declare(strict_types=1);

namespace TallBarrel\Desk\People;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\SignIn\Arrival;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Person\Visits;
use TallBarrel\Work\Keeping\ChoosePassword;
use TallBarrel\Work\Keeping\UseCodes;

/** How one gets in oneself: the password, the codes beside it, and where one is signed in. */
#[Route('/settings/access')]
final class OwnAccessController extends AbstractController
{
    public function __construct(
        private readonly Visits $visits,
        private readonly UseCodes $codes,
        private readonly CurrentBusiness $business,
    ) {
    }

    #[Route('', name: 'own_access', methods: ['GET'])]
    public function show(Request $request, #[CurrentUser] Person $person): Response
    {
        return $this->page($request, $person, Fields::none());
    }

    #[Route('/password', name: 'own_password', methods: ['POST'])]
    public function password(Request $request, ChoosePassword $choose, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        $typed = static fn (string $name): string => is_string($fields->typed[$name] ?? null)
            ? $fields->typed[$name]
            : '';
        $choose->change($person, $typed('old'), $typed('new'), self::visit($request), $fields->problems);
        if (!$fields->isGood()) {
            return $this->page($request, $person, $fields);
        }
        $this->addFlash('fine', 'The new password holds. Everywhere else you are signed out.');

        return $this->redirectToRoute('own_access');
    }

    #[Route('/codes', name: 'own_codes', methods: ['POST'])]
    public function codes(Request $request, #[CurrentUser] Person $person): Response
    {
        $fields = Fields::of($request);
        if ('end' === $fields->text('do')) {
            $this->codes->end($person);
            $this->addFlash('fine', 'No code is asked for any more.');

            return $this->redirectToRoute('own_access');
        }
        $fields->apply('code', fn () => $this->codes->begin(
            $person,
            self::shown($fields) ?? throw InvalidValue::because('Begin again: the key was not sent along.'),
            $fields->text('code', 20),
        ));
        if (!$fields->isGood()) {
            return $this->page($request, $person, $fields);
        }
        $this->addFlash('fine', 'From now on a code is asked for after your password.');

        return $this->redirectToRoute('own_access');
    }

    /** One visit is ended, or all but this one. */
    #[Route('/visits', name: 'own_visits', methods: ['POST'])]
    public function end(Request $request, #[CurrentUser] Person $person): Response
    {
        $visit = Fields::of($request)->text('visit', 12);
        if (ctype_digit($visit)) {
            $this->visits->end($person, (int) $visit);
            $this->addFlash('fine', 'That one is signed out.');
        } else {
            $this->visits->endAll($person, self::visit($request));
            $this->addFlash('fine', 'Everywhere else you are signed out.');
        }

        return $this->redirectToRoute('own_access');
    }

    /** The secret on the page, until a code proves that it was taken over; it is kept nowhere before. */
    private static function shown(Fields $fields): ?string
    {
        $secret = $fields->text('secret', 64);

        return 1 === preg_match('/^[A-Z2-7]{32}$/', $secret) ? $secret : null;
    }

    private static function visit(Request $request): ?int
    {
        $visit = $request->getSession()->get(Arrival::VISIT);

        return is_int($visit) ? $visit : null;
    }

    private function page(Request $request, Person $person, Fields $fields): Response
    {
        $key = null;
        if (null === $person->codeSecret() && 'codes' === $request->query->getString('show', $fields->text('show'))) {
            $secret = self::shown($fields) ?? $this->codes->newSecret();
            $key = CodeKey::of($this->business->get()->name(), $person->email(), $secret);
        }

        return $this->render(
            'people/own_access.html.twig',
            [
                'person' => $person,
                'visits' => $this->visits->of($person),
                'here' => self::visit($request),
                'key' => $key,
                'fields' => $fields,
                'least' => ChoosePassword::LEAST,
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }
}
