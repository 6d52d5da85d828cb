<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/**
 * A remark with its amounts. Words are made where it is shown.
 *
 * @phpstan-type NoteData array{string, array<string, float|int|string>}
 */
final readonly class Note
{
    /** @param array<string, float|int|string> $with as told at the remark; days as Y-m-d */
    public function __construct(public Remark $remark, public array $with = [])
    {
    }

    /** @return NoteData */
    public function toArray(): array
    {
        return [$this->remark->value, $this->with];
    }

    /** @param NoteData $data */
    public static function fromArray(array $data): self
    {
        return new self(Remark::from($data[0]), $data[1]);
    }

    /**
     * @param list<self> $notes
     *
     * @return list<NoteData>
     */
    public static function all(array $notes): array
    {
        return array_map(static fn (self $note): array => $note->toArray(), $notes);
    }
}
