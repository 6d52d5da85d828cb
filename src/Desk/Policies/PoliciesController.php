<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Policies;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\Demand\Pattern;
use TallBarrel\Core\Demand\ValueClass;
use TallBarrel\Core\Replenish\Policy;
use TallBarrel\Core\Replenish\PolicyKind;
use TallBarrel\Core\Replenish\ServiceTarget;
use TallBarrel\Desk\Drawing\CurveChart;
use TallBarrel\Desk\Shell\AboutMoney;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\ClassFigures;
use TallBarrel\Store\Planning\PolicySetting;
use TallBarrel\Work\Planning\PlayPolicy;
use TallBarrel\Work\Planning\SetClassPolicy;

/** How each class of items is replenished, what a setting costs and what it brings. */
#[Route('/policies')]
#[AboutMoney]
final class PoliciesController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly ClassFigures $figures,
        private readonly PlayPolicy $curve,
    ) {
    }

    #[Route('', name: 'policies', methods: ['GET'])]
    public function page(Request $request): Response
    {
        return $this->show($request->query->getString('class', 'A-smooth'), Fields::none());
    }

    /** The curve with the mark at a level that is only tried. */
    #[Route('/curve/{class}', name: 'policy_curve', requirements: ['class' => '[ABC]-[a-z]+'], methods: ['GET'])]
    public function curve(string $class, Request $request): Response
    {
        return $this->render(
            'policies/_curve.html.twig',
            $this->curveModel($this->setting($class), Fields::query($request)),
        );
    }

    #[Route('/{class}', name: 'policy_save', requirements: ['class' => '[ABC]-[a-z]+'], methods: ['POST']),
        IsGranted('ROLE_BUY'),]
    public function save(string $class, Request $request, SetClassPolicy $set, #[CurrentUser] Person $person): Response
    {
        $setting = $this->setting($class);
        $fields = Fields::of($request);
        // Who may approve says whether a lower price may take more than is wanted.
        $policy = self::policy(
            $fields,
            $this->isGranted('ROLE_APPROVE') ? '1' === $fields->text('beyond') : $setting->policy()->beyond,
        );
        if (null === $policy) {
            return $this->show($class, $fields);
        }
        $set->set($setting, $policy, $person);
        $this->addFlash(
            'fine',
            sprintf(
                '%s: %s, %s. Everything is being calculated with it.',
                $class,
                $policy->kind->words(),
                $policy->target->words(),
            ),
        );

        return $this->redirectToRoute('policies', ['class' => $class]);
    }

    /** What a person typed as a policy; null with the reasons in the fields. */
    private static function policy(Fields $fields, bool $beyond): ?Policy
    {
        $percent = $fields->price('service', $fields->text('service'));
        $amount = $fields->price('amount', $fields->text('amount'));
        $minimum = $fields->price('minimum', $fields->text('minimum'));
        $target = $fields->attempt(
            'service',
            static fn (): ServiceTarget => ServiceTarget::of(
                $fields->text('target', missing: ServiceTarget::CYCLE),
                ($percent?->toFloat() ?? 0.0) / 100,
            ),
        );
        $kind = PolicyKind::tryFrom($fields->text('kind'));
        if (null === $kind) {
            $fields->refuse('kind', 'Choose how it is replenished.');
        }

        return null === $kind || null === $target || !$fields->isGood()
            ? null
            : $fields->attempt(
                'amount',
                static fn (): Policy => Policy::of(
                    $kind,
                    $target,
                    $amount?->toFloat(),
                    $minimum?->toFloat(),
                    $beyond,
                ),
            );
    }

    private function show(string $class, Fields $fields): Response
    {
        $settings = [];
        foreach ($this->entities->getRepository(PolicySetting::class)->findAll() as $setting) {
            $settings[$setting->key()] = $setting;
        }
        $chosen = $settings[$class] ?? throw $this->createNotFoundException(sprintf('There is no class %s.', $class));

        return $this->render(
            'policies/policies.html.twig',
            [
                'values' => ValueClass::cases(),
                'patterns' => Pattern::cases(),
                'kinds' => PolicyKind::cases(),
                'settings' => $settings,
                'figures' => $this->figures->all(),
                'chosen' => $chosen,
                'fields' => $fields,
            ],
            new Response(status: $fields->isGood() ? 200 : 422),
        );
    }

    /** @return array<string, mixed> */
    private function curveModel(PolicySetting $setting, Fields $fields): array
    {
        $now = $setting->policy();
        $tried = '' === $fields->text('kind') ? $now : self::policy($fields, $now->beyond);
        $marks = array_values(
            array_unique([
                $now->target->level,
                ...null === $tried || in_array($tried->target->level, PlayPolicy::LEVELS, true)
                    ? []
                    : [$tried->target->level],
            ]),
        );
        $curve = $this->curve->of($setting->key(), $tried ?? $now, $marks);
        $before =
            null === $tried
            || ($tried->kind === $now->kind
                && $tried->target->kind === $now->target->kind
                && $tried->amount === $now->amount
                && $tried->minimum === $now->minimum)
                ? $curve
                : $this->curve->of($setting->key(), $now, $marks);
        if (null === $curve || null === $before) {
            return ['waiting' => true, 'setting' => $setting, 'errors' => $fields->errors(), 'query' => $fields->typed];
        }
        $at = static function (array $points, float $level): ?array {
            foreach ($points as $point) {
                if (is_array($point) && is_float($point['level']) && abs($point['level'] - $level) < 1e-6) {
                    return $point;
                }
            }

            return null;
        };
        $level = ($tried ?? $now)->target->level;

        return [
            'waiting' => false,
            'setting' => $setting,
            'chart' => CurveChart::of($curve['points'], $now->target->level, $level),
            'tried' => $at($curve['points'], $level),
            'now' => $at($before['points'], $now->target->level),
            'level' => $level,
            'policy' => $tried ?? $now,
            'places' => $curve['places'],
            'of' => $curve['of'],
            'errors' => $fields->errors(),
        ];
    }

    private function setting(string $class): PolicySetting
    {
        [$value, $pattern] = explode('-', $class);

        return $this->entities->getRepository(PolicySetting::class)->findOneBy([
            'valueClass' => ValueClass::tryFrom($value),
            'pattern' => Pattern::tryFrom($pattern),
        ]) ?? throw $this->createNotFoundException(sprintf('There is no class %s.', $class));
    }
}
