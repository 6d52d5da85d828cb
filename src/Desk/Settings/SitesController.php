<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

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
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\Form\Forms;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Bin;
use TallBarrel\Store\Site\BinKind;
use TallBarrel\Store\Site\DeliveryPlace;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Work\Keeping\KeepDeliveryPlace;
use TallBarrel\Work\Keeping\KeepSite;
use TallBarrel\Work\Keeping\SiteDetails;

/** Where stock lies, and other places that goods are sent to. */
#[Route('/settings/sites')]
final class SitesController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Sites $sites,
        private readonly KeepSite $keep,
        private readonly Forms $forms,
    ) {
    }

    #[Route('', name: 'sites', methods: ['GET'])]
    public function list(): Response
    {
        return $this->all($this->form(null), Fields::none());
    }

    #[Route('', name: 'site_open', methods: ['POST']), IsGranted('ROLE_APPROVE')]
    public function open(Request $request, #[CurrentUser] Person $by): Response
    {
        $details = new SiteDetails();
        $form = $this->form(null, $details)->handleRequest($request);
        $site = Forms::attempt($form, fn (Problems $problems): ?Site => $this->keep->open($details, $by, $problems));
        if (null === $site) {
            return $this->all($form, Fields::none());
        }
        $this->addFlash('fine', $site->name().' is open.');

        return $this->redirectToRoute('site', ['code' => $site->code]);
    }

    /** Kept places to choose from, beside a field that takes an address. */
    #[Route('/places', name: 'place_choices', methods: ['GET'], priority: 1)]
    public function places(): Response
    {
        return $this->render('orders/_places.html.twig', [
            'places' => $this->entities->getRepository(DeliveryPlace::class)->findBy([], ['name' => 'ASC']),
        ]);
    }

    #[Route('/places', name: 'place_add', methods: ['POST'], priority: 1), IsGranted('ROLE_BUY')]
    public function addPlace(Request $request, KeepDeliveryPlace $keep): Response
    {
        $fields = Fields::of($request);
        [$place, $where] = [$fields->text('place', 80), $fields->text('where')];
        if ($fields->isGood()) {
            $keep->add($place, $where, $fields->problems);
        }

        return $fields->isGood() ? $this->redirectToRoute('sites') : $this->all($this->form(null), $fields);
    }

    #[Route('/places/{id}', name: 'place_drop', requirements: ['id' => '\d{1,9}'], methods: ['POST'], priority: 1),
        IsGranted('ROLE_BUY')]
    public function dropPlace(int $id, KeepDeliveryPlace $keep): Response
    {
        $keep->drop($id);

        return $this->redirectToRoute('sites');
    }

    #[Route('/{code}', name: 'site', methods: ['GET'])]
    public function show(string $code): Response
    {
        $site = $this->find($code);

        return $this->one($site, $this->form($site));
    }

    #[Route('/{code}', name: 'site_save', methods: ['POST']), IsGranted('ROLE_APPROVE')]
    public function save(string $code, Request $request, #[CurrentUser] Person $by): Response
    {
        $site = $this->find($code);
        $details = SiteDetails::of($site);
        $form = $this->form($site, $details)->handleRequest($request);
        Forms::attempt($form, fn (Problems $problems) => $this->keep->change($site, $details, $by, $problems));
        if (!$form->isSubmitted() || !$form->isValid()) {
            return $this->one($this->find($code), $form);
        }
        $this->addFlash('fine', $details->name.' is saved.');

        return $this->redirectToRoute('site', ['code' => $code]);
    }

    #[Route('/{code}/{act}', name: 'site_act', requirements: ['act' => 'close|open|bin|bin-out'], methods: ['POST']),
        IsGranted('ROLE_APPROVE')]
    public function act(string $code, string $act, Request $request, #[CurrentUser] Person $by): Response
    {
        $site = $this->find($code);
        $fields = Fields::of($request);
        try {
            switch ($act) {
                case 'close':
                    $this->keep->close($site, $by);
                    $this->addFlash('fine', $site->name().' is closed. What was stays.');
                    break;
                case 'open':
                    $this->keep->openAgain($site, $by);
                    break;
                case 'bin':
                    $this->keep->binHolds(
                        $this->bin($site, $fields),
                        BinKind::tryFrom($fields->text('kind')) ?? BinKind::Shelf,
                        $by,
                    );
                    break;
                default:
                    $this->keep->dropBin($this->bin($site, $fields), $by);
            }
        } catch (Refused $refused) {
            $this->addFlash('short', $refused->getMessage());
        }

        return $this->redirectToRoute('site', ['code' => $code]);
    }

    private function bin(Site $site, Fields $fields): Bin
    {
        $bin = $this->entities->find(Bin::class, (int) $fields->text('bin', 9));

        return $bin?->site === $site ? $bin : throw $this->createNotFoundException('There is no such bin here.');
    }

    /** @return FormInterface<mixed> */
    private function form(?Site $site, ?SiteDetails $details = null): FormInterface
    {
        return $this->forms->of(SiteType::class, $details ?? SiteDetails::of($site), [
            'site' => $site,
            'sites' => $this->sites->all(),
        ]);
    }

    /** @param FormInterface<mixed> $form */
    private function all(FormInterface $form, Fields $fields): Response
    {
        return $this->render(
            'settings/sites.html.twig',
            [
                'sites' => $this->sites->withClosed(),
                'form' => $form->createView(),
                'places' => $this->entities->getRepository(DeliveryPlace::class)->findBy([], ['name' => 'ASC']),
                'fields' => $fields,
            ],
            new Response(status: $form->isSubmitted() || !$fields->isGood() ? 422 : 200),
        );
    }

    /** @param FormInterface<mixed> $form */
    private function one(Site $site, FormInterface $form): Response
    {
        return $this->render(
            'settings/site.html.twig',
            ['site' => $site, 'form' => $form->createView(), 'kinds' => BinKind::cases()],
            new Response(status: $form->isSubmitted() ? 422 : 200),
        );
    }

    private function find(string $code): Site
    {
        return $this->sites->byCode($code)
            ?? throw $this->createNotFoundException(sprintf('There is no site %s.', $code));
    }
}
