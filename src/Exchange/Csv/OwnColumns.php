<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use TallBarrel\Store\Business\OwnField;
use TallBarrel\Store\Business\OwnFields;
use TallBarrel\Store\Business\OwnFieldThing;

/** Fields of the business's own, as columns of a file: each is called like its field, in small letters. */
final readonly class OwnColumns
{
    public function __construct(private OwnFields $fields)
    {
    }

    /** @return array<string, OwnField> */
    public function byColumn(OwnFieldThing $thing): array
    {
        $own = [];
        foreach ($this->fields->of($thing) as $field) {
            $own[mb_strtolower($field->label())] = $field;
        }

        return $own;
    }

    /** @return array<string, string> what stands in each column */
    public function columns(OwnFieldThing $thing): array
    {
        return array_fill_keys(array_keys($this->byColumn($thing)), 'of our own');
    }

    /**
     * @param array<string, OwnField> $own by column
     *
     * @return array<int, string> what a line says, by field; an empty cell says nothing
     */
    public static function read(Row $row, array $own): array
    {
        $read = [];
        foreach ($own as $column => $field) {
            if ($row->has($column)) {
                $read[$field->id] = (string) $row->attempt(
                    $column,
                    static fn (): string => $field->read($row->text($column), $row->numerals),
                );
            }
        }

        return $read;
    }

    /**
     * @param array<array-key, array<int, string>> $values by code, then by field
     * @param array<string, int>                   $ids    by code in capital letters
     */
    public function put(OwnFieldThing $thing, array $values, array $ids): void
    {
        $fields = [];
        foreach ($this->fields->of($thing) as $field) {
            $fields[$field->id] = $field;
        }
        foreach ($values as $code => $some) {
            foreach ($some as $field => $value) {
                $this->fields->put($fields[$field], $ids[mb_strtoupper((string) $code)], $value);
            }
        }
    }

    /** @return list<string> what stands in each column for one thing */
    public function cells(OwnFieldThing $thing, int $id): array
    {
        $values = $this->fields->values($thing, $id);

        return array_map(
            static fn (OwnField $field): string => $values[$field->id] ?? '',
            $this->fields->of($thing),
        );
    }
}
