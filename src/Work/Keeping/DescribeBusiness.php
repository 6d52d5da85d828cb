<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Problems;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Person\Person;

/** Changes what is kept of the business itself: all of it, or nothing. */
final readonly class DescribeBusiness
{
    private const LOGO_WIDEST = 600;

    public function __construct(
        private EntityManagerInterface $entities,
        private CurrentBusiness $current,
        private DrawPicture $draw,
        private Audit $audit,
    ) {
    }

    /** @param Problems $problems takes what stands in the way, by field; nothing is saved then */
    public function describe(BusinessDetails $details, Person $by, Problems $problems): void
    {
        $business = $this->current->get();
        $problems->apply(
            '' === trim($details->name) ? 'name' : 'country',
            static fn () => $business->introduce(
                $details->name,
                $details->address,
                $details->taxNumber,
                (string) $details->country,
            ),
        );
        $business->writeNumbersWith($details->mark);
        $business->signPaper($details->foot);
        if (null !== $details->orderCost && null !== $details->holding) {
            $problems->apply('holding', static fn () => $business->weigh($details->orderCost, $details->holding));
        }
        if (null !== $details->logo) {
            $logo = $problems->attempt('logo', fn () => $this->draw->draw($details->logo, self::LOGO_WIDEST));
            $business->showLogo($logo);
        } elseif ($details->dropLogo) {
            $business->showLogo(null);
        }
        if ($problems->areNone()) {
            $this->audit->note($by, 'business', 'Described anew');
            $this->entities->flush();
        } else {
            $this->entities->refresh($business);
        }
    }
}
