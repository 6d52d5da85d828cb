<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\AllSites;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\TakenFile;
use TallBarrel\Store\Import\ImportRun;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Keeping\FileReading;
use TallBarrel\Work\Keeping\Imports;

#[Route('/own-data'), IsGranted('ROLE_IMPORT')]
#[AboutMoney, AllSites]
final class OwnDataController extends AbstractController
{
    public function __construct(
        private readonly Imports $importer,
        private readonly EntityManagerInterface $entities,
    ) {
    }

    #[Route('', name: 'own_data', methods: ['GET'])]
    public function overview(): Response
    {
        return $this->page(Fields::none());
    }

    #[Route('/{kind}/sample.csv', name: 'own_data_sample', methods: ['GET'])]
    public function sample(string $kind, TakenFile $file): Response
    {
        $import = $this->importer->forms()[$kind] ?? throw $this->createNotFoundException('There is no such sample.');

        return $file->of($kind.'-sample', [array_keys($import->columns), ...$import->sample]);
    }

    #[Route(
        '/{kind}',
        name: 'own_data_check',
        requirements: ['kind' => 'sites|items|suppliers|rates|offers|stock|sales|plans|promises'],
        methods: ['POST'],
    ),]
    public function check(string $kind, Request $request, #[CurrentUser] Person $person): Response
    {
        $this->mayBring($kind);
        $fields = Fields::of($request);
        $file = $request->files->get('file');
        $run = $fields->attempt($kind, function () use ($file, $kind, $person): ImportRun {
            if (!$file instanceof UploadedFile) {
                throw InvalidValue::because('Choose a file first.');
            }
            if (!$file->isValid()) {
                throw InvalidValue::because(
                    \UPLOAD_ERR_INI_SIZE === $file->getError()
                        ? sprintf(
                            'The file is too large; at most %d MB can be read at once.',
                            Imports::MOST_BYTES / 1048576,
                        )
                        : 'The file did not arrive whole. Try again.',
                );
            }

            return $this->importer->check($kind, $file->getPathname(), $file->getClientOriginalName(), $person);
        });

        return null === $run ? $this->page($fields) : $this->redirectToRoute('own_data_run', ['id' => $run->id]);
    }

    /** What a currency is worth moves every limit: the owner brings rates, everybody else fetches them. */
    private function mayBring(string $kind): void
    {
        if ('rates' === $kind && !$this->isGranted('ROLE_APPROVE')) {
            throw $this->createAccessDeniedException(
                'Exchange rates move what everybody may order: an owner brings them. Fetch those of the bank instead.',
            );
        }
    }

    /** All there is of a kind, to be taken away; brought again it changes nothing. */
    #[Route('/{kind}/all.{format}', name: 'own_data_all', requirements: ['format' => TakenFile::FORMATS],
        methods: ['GET'])]
    public function all(string $kind, string $format, TakenFile $file): Response
    {
        $import = $this->importer->forms()[$kind] ?? throw $this->createNotFoundException('There is no such list.');

        return $file->of($kind, $this->importer->all($kind), $format, $import->title);
    }

    /** The rows that cannot be used, each with the reason behind, to be mended elsewhere and brought again. */
    #[Route('/runs/{id}/bad.csv', name: 'own_data_bad', requirements: ['id' => '\d{1,9}'], methods: ['GET'])]
    public function bad(int $id, TakenFile $file): Response
    {
        return $file->of('rows-to-mend', $this->importer->badRows($this->find($id)));
    }

    #[Route('/runs/{id}', name: 'own_data_run', requirements: ['id' => '\d+'], methods: ['GET'])]
    public function run(int $id, Request $request): Response
    {
        $run = $this->find($id);
        $model = [
            'run' => $run,
            'kind' => $this->importer->forms()[$run->kind],
            'done' => $this->importer->progress($run),
            'file' => ImportRun::CHECKED === $run->state() ? $this->importer->file($run) : null,
        ];

        return $this->render(
            $request->headers->has('HX-Request') ? 'settings/_progress.html.twig' : 'settings/run.html.twig',
            $model,
        );
    }

    #[Route('/runs/{id}', name: 'own_data_apply', requirements: ['id' => '\d+'], methods: ['POST'])]
    public function apply(int $id): Response
    {
        $run = $this->find($id);
        $this->mayBring($run->kind);
        $this->importer->askToApply($run);

        return $this->redirectToRoute('own_data_run', ['id' => $id]);
    }

    /** How the file is to be read: its letters, its columns, its numbers, and cells put right. */
    #[Route('/runs/{id}/read', name: 'own_data_read', requirements: ['id' => '\d{1,9}'], methods: ['POST'])]
    public function readAgain(int $id, Request $request): Response
    {
        $fields = Fields::of($request);
        $layout = array_filter(
            [
                'encoding' => $fields->text('encoding'),
                'delimiter' => match ($fields->text('delimiter')) {
                    '' => '',
                    'blank' => "\t",
                    default => $fields->text('delimiter'),
                },
                'sheet' => $fields->text('sheet'),
            ],
            static fn (string $chosen): bool => '' !== $chosen,
        );
        $mark = $fields->text('mark', 1);
        [$headings, $columns] = [$fields->each('heading'), $fields->each('column')];
        $mapping = [] === $headings ? null : [];
        foreach ($headings as $i => $heading) {
            $mapping[$heading] = $columns[$i] ?? '';
        }
        $mended = [];
        foreach (is_array($fields->typed['cell'] ?? null) ? $fields->typed['cell'] : [] as $line => $cells) {
            foreach (is_array($cells) ? $cells : [] as $column => $value) {
                if (is_int($line) && is_string($column) && is_string($value)) {
                    $mended[$line][$column] = trim($value);
                }
            }
        }
        try {
            $this->importer->checkAgain(
                $this->find($id),
                new FileReading('' === $mark ? null : $mark, $layout, $mapping, $mended),
            );
        } catch (InvalidValue|Refused $problem) {
            $this->addFlash('short', $problem->getMessage());
        }

        return $this->redirectToRoute('own_data_run', ['id' => $id]);
    }

    private function page(Fields $fields): Response
    {
        return $this->render(
            'settings/own_data.html.twig',
            [
                'kinds' => $this->importer->forms(),
                'runs' => $this->entities->getRepository(ImportRun::class)->findBy([], ['id' => 'DESC'], 10),
                'fields' => $fields,
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    private function find(int $id): ImportRun
    {
        return $this->entities->find(ImportRun::class, $id) ??
            throw $this->createNotFoundException('There is no such import.');
    }
}
