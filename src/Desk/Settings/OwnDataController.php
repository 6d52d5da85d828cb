<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Import\ImportRun;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Keeping\Imports;
use TallBarrel\Work\Keeping\TableFile;

#[Route('/own-data'), IsGranted('ROLE_IMPORT')]
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
    public function sample(string $kind, TableFile $table): Response
    {
        $import = $this->importer->forms()[$kind] ?? throw $this->createNotFoundException('There is no such sample.');

        return new Response($table->write([array_keys($import->columns), ...$import->sample]), 200, [
            'Content-Type' => 'text/csv; charset=utf-8',
            'Content-Disposition' => HeaderUtils::makeDisposition('attachment', $kind.'-sample.csv'),
        ]);
    }

    #[Route(
        '/{kind}',
        name: 'own_data_check',
        requirements: ['kind' => 'items|suppliers|rates|offers|stock|sales|plans'],
        methods: ['POST'],
    ),]
    public function check(string $kind, Request $request, #[CurrentUser] Person $person): Response
    {
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

    #[Route('/runs/{id}', name: 'own_data_run', requirements: ['id' => '\d+'], methods: ['GET'])]
    public function run(int $id, Request $request): Response
    {
        $run = $this->find($id);
        $model = [
            'run' => $run,
            'kind' => $this->importer->forms()[$run->kind],
            'done' => $this->importer->progress($run),
        ];

        return $this->render(
            $request->headers->has('HX-Request') ? 'settings/_progress.html.twig' : 'settings/run.html.twig',
            $model,
        );
    }

    #[Route('/runs/{id}', name: 'own_data_apply', requirements: ['id' => '\d+'], methods: ['POST'])]
    public function apply(int $id): Response
    {
        $this->importer->askToApply($this->find($id));

        return $this->redirectToRoute('own_data_run', ['id' => $id]);
    }

    /** The decimal mark the file's numbers are written with, where the guess was wrong or there was none. */
    #[Route('/runs/{id}/mark', name: 'own_data_mark', requirements: ['id' => '\d+'], methods: ['POST'])]
    public function mark(int $id, Request $request): Response
    {
        try {
            $this->importer->checkAgain($this->find($id), Fields::of($request)->text('mark', 1));
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
