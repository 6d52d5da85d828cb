<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

/** Which changes of a sent order need a new yes, as the owner chose. */
final readonly class YesRules
{
    /** @param array<string, YesRule> $rules by part; what is not named follows the usual */
    private function __construct(private array $rules)
    {
    }

    /** @param array<string, string> $kept rule by part, as they are kept; what is none of them counts for nothing */
    public static function of(array $kept): self
    {
        $rules = [];
        foreach (ChangedPart::cases() as $part) {
            $rule = YesRule::tryFrom($kept[$part->value] ?? '');
            if (null !== $rule) {
                $rules[$part->value] = $rule;
            }
        }

        return new self($rules);
    }

    public function for(ChangedPart $part): YesRule
    {
        return $this->rules[$part->value] ?? $part->usualRule();
    }

    /** The strictest of all that a revision changes. */
    public function forAll(RevisionChange $change): YesRule
    {
        $strictest = YesRule::Never;
        foreach ($change->parts() as $part) {
            $rule = $this->for($part);
            if (YesRule::Always === $rule) {
                return $rule;
            }
            $strictest = YesRule::BeyondLimit === $rule ? $rule : $strictest;
        }

        return $strictest;
    }

    /** Whether anything needs somebody else, whatever the limits are. */
    public function everAsksSomebodyElse(): bool
    {
        return in_array(YesRule::Always, $this->rules, true);
    }

    /** @return array<string, string> rule by part, as they are kept */
    public function toArray(): array
    {
        return array_map(static fn (YesRule $rule): string => $rule->value, $this->rules);
    }
}
