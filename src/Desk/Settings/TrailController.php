<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\TakenFile;
use TallBarrel\Store\Audit\AuditTrail;
use TallBarrel\Store\Audit\Seals;
use TallBarrel\Store\Audit\SoughtEntries;
use TallBarrel\Store\Person\Person;

/** Who did what to what, and when: read by whoever owns the business. */
#[Route('/trail'), IsGranted('ROLE_APPROVE')]
final class TrailController extends AbstractController
{
    public function __construct(private readonly AuditTrail $trail)
    {
    }

    #[Route('', name: 'trail', methods: ['GET'])]
    public function show(Request $request, EntityManagerInterface $entities, Seals $seals): Response
    {
        $fields = Fields::query($request);
        $sought = self::sought($fields);
        $before = $fields->text('before', 18);
        $entries = $fields->isGood()
            ? $this->trail->page($sought, ctype_digit($before) ? (int) $before : null)
            : [];
        $shown = array_slice($entries, 0, AuditTrail::A_PAGE);
        $last = end($shown);

        return $this->render('settings/trail.html.twig', [
            'entries' => $shown,
            'next' => count($entries) > AuditTrail::A_PAGE && false !== $last ? $last->id : null,
            'people' => $entities->getRepository(Person::class)->findBy([], ['name' => 'ASC']),
            'head' => $seals->head(),
            'waiting' => $seals->waiting(),
            'asked' => self::asked($fields),
            'fields' => $fields,
        ], new Response(status: $fields->isGood() ? 200 : 422));
    }

    #[Route('/file.{format}', name: 'trail_file', requirements: ['format' => TakenFile::FORMATS], methods: ['GET'])]
    public function takeAway(string $format, Request $request, TakenFile $file): Response
    {
        $rows = $this->rows(self::sought(Fields::query($request)));

        return $file->of('what-was-done', $rows, $format, 'What was done');
    }

    /** @return iterable<list<string>> */
    private function rows(SoughtEntries $sought): iterable
    {
        yield ['at', 'person', 'subject', 'words', 'changed', 'was', 'is', 'seal', 'hash'];
        foreach ($this->trail->all($sought) as $entry) {
            $changes = $entry->changes();
            foreach ([] === $changes ? [null] : $changes as $change) {
                yield [
                    $entry->at->format('Y-m-d H:i:s'),
                    $entry->person?->name() ?? '',
                    $entry->subject,
                    $entry->words,
                    null === $change ? '' : trim($change['of'].' '.$change['field']),
                    $change['was'] ?? '',
                    $change['is'] ?? '',
                    (string) $entry->seal,
                    (string) $entry->hash,
                ];
            }
        }
    }

    private static function sought(Fields $fields): SoughtEntries
    {
        $person = $fields->text('person', 12);

        return new SoughtEntries(
            ctype_digit($person) ? (int) $person : null,
            $fields->text('words', 80),
            $fields->day('from', $fields->text('from', 10)),
            $fields->day('until', $fields->text('until', 10)),
        );
    }

    /** @return array<string, string> as it goes on in addresses */
    private static function asked(Fields $fields): array
    {
        $asked = [];
        foreach (['person', 'words', 'from', 'until'] as $name) {
            $value = $fields->text($name, 80);
            if ('' !== $value) {
                $asked[$name] = $value;
            }
        }

        return $asked;
    }
}
