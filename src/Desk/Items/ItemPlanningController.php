<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Items;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Desk\Policies\PoliciesController;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\ForecastAdjustment;
use TallBarrel\Store\Planning\HistoryVerdict;
use TallBarrel\Store\Planning\ItemPolicy;
use TallBarrel\Store\Site\Site;

/** What a person tells planning about one item. Each change plans the item anew at once. */
#[Route('/items/{code}/planning', requirements: ['code' => '[^/]+']), IsGranted('ROLE_BUY')]
final class ItemPlanningController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Audit $audit,
        private readonly ClockInterface $clock,
    ) {
    }

    /** Its own policy, or that of its class. */
    #[Route('/policy', name: 'item_policy', methods: ['POST'])]
    public function policy(string $code, Request $request, #[CurrentUser] Person $person): Response
    {
        $item = $this->item($code);
        $fields = Fields::of($request);
        $own = $this->entities->find(ItemPolicy::class, ['item' => $item]);
        if ('' === $fields->text('kind')) {
            if (null !== $own) {
                $this->entities->remove($own);
            }
            $this->audit->note($person, $code, 'Follows the policy of its class');
        } else {
            $policy = PoliciesController::policy($fields);
            if (null !== $policy && null === $own) {
                $this->entities->persist(new ItemPolicy($item, $policy));
            } elseif (null !== $policy) {
                $own->change($policy);
            }
            $this->audit->note($person, $code, sprintf('Policy of its own: %s', $policy?->kind->words() ?? ''));
        }

        return $this->done($item, $fields, 'The policy holds.');
    }

    /** Staple, shelf life, an item it sells like. */
    #[Route('/facts', name: 'item_facts', methods: ['POST'])]
    public function facts(string $code, Request $request, #[CurrentUser] Person $person): Response
    {
        $item = $this->item($code);
        $fields = Fields::of($request);
        $fields->apply('shelf', static function () use ($fields, $item): void {
            $days = $fields->text('shelf');
            if ('' !== $days && 1 !== preg_match('/^\d{1,4}$/', $days)) {
                throw InvalidValue::notANumber($days, 'a shelf life in whole days');
            }
            $item->keep('1' === $fields->text('staple'), '' === $days ? null : (int) $days);
        });
        $fields->apply('like', function () use ($fields, $item): void {
            $like = $fields->text('like');
            $other =
                '' === $like
                    ? null
                    : $this->entities->getRepository(Item::class)->findOneBy(['code' => $like]) ??
                        throw InvalidValue::because(sprintf('There is no item %s for it to sell like.', $like));
            $item->sellLike($other, $fields->price('factor', $fields->text('factor')));
        });
        $this->audit->note($person, $code, 'What planning should know of it was changed');

        return $this->done($item, $fields, 'Saved, and planned again.');
    }

    #[Route('/adjust', name: 'item_adjust', methods: ['POST'])]
    public function adjust(string $code, Request $request, #[CurrentUser] Person $person): Response
    {
        $item = $this->item($code);
        $fields = Fields::of($request);
        $site =
            '' === $fields->text('site')
                ? null
                : $this->entities->getRepository(Site::class)->findOneBy(['code' => $fields->text('site')]);
        $until = $fields->day('until', $fields->text('until'));
        $typed = $fields->text('percent');
        $fields->apply('percent', function () use ($typed, $until, $item, $site, $fields, $person): void {
            $percent = $fields->numerals
                ->decimal(rtrim($typed, '% '), 2, 'a percentage such as +20 or −30', true)
                ->toFloat();
            $this->entities->persist(
                new ForecastAdjustment(
                    $item,
                    $site,
                    $percent,
                    $until ?? throw InvalidValue::because('Say until when it holds.'),
                    $fields->text('reason'),
                    $person,
                    $this->clock->now(),
                ),
            );
            $this->audit->note(
                $person,
                $item->code,
                sprintf('Forecast %+g %% until %s: %s', $percent, $until->format('j M Y'), $fields->text('reason')),
            );
        });

        return $this->done($item, $fields, 'The forecast is adjusted.');
    }

    #[Route('/adjust/{id}/end', name: 'item_adjust_end', requirements: ['id' => '\d+'], methods: ['POST'])]
    public function endAdjustment(string $code, int $id, #[CurrentUser] Person $person): Response
    {
        $adjustment = $this->entities->find(ForecastAdjustment::class, $id);
        if (null !== $adjustment && $adjustment->item->code === $code) {
            $this->entities->remove($adjustment);
            $this->audit->note($person, $code, sprintf('Forecast no longer %+g %%', $adjustment->percent));
        }

        return $this->done($this->item($code), Fields::none(), 'The adjustment is over.');
    }

    /** A week of history counts as it is, or is left out. */
    #[Route('/week', name: 'item_week', methods: ['POST'])]
    public function week(string $code, Request $request, #[CurrentUser] Person $person): Response
    {
        $item = $this->item($code);
        $fields = Fields::of($request);
        $day = $fields->day('day', $fields->text('day'));
        $site = $this->entities->getRepository(Site::class)->findOneBy(['code' => $fields->text('site')]);
        if (null === $day || null === $site || $day >= $this->clock->now()->setTime(0, 0)) {
            $fields->refuse('day', 'Choose a day of a week that is over.');
        } else {
            $keep = 'keep' === $fields->text('verdict');
            $known = $this->entities
                ->getRepository(HistoryVerdict::class)
                ->findOneBy(['item' => $item, 'site' => $site, 'day' => $day]);
            if (null === $known) {
                $this->entities->persist(new HistoryVerdict($item, $site, $day, $keep, $person, $this->clock->now()));
            } else {
                $known->decide($keep, $person, $this->clock->now());
            }
            $this->audit->note(
                $person,
                $code,
                sprintf(
                    'The week of %s at %s %s',
                    $day->format('j M Y'),
                    $site->name,
                    $keep ? 'counts as it is' : 'is left out',
                ),
            );
        }

        return $this->done($item, $fields, 'The history is read anew.', $site?->code);
    }

    private function done(Item $item, Fields $fields, string $words, ?string $site = null): Response
    {
        if ($fields->isGood()) {
            $this->entities->flush();
            $this->addFlash('fine', $words);
        } else {
            $this->addFlash('short', implode(' ', $fields->errors()));
        }

        return $this->redirectToRoute('item', ['code' => $item->code] + (null === $site ? [] : ['site' => $site]));
    }

    private function item(string $code): Item
    {
        return $this->entities->getRepository(Item::class)->findOneBy(['code' => $code]) ??
            throw $this->createNotFoundException(sprintf('There is no item %s.', $code));
    }
}
