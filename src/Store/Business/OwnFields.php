<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;

/** Fields of the business's own, and what stands in them. Where a thing has none, nothing is asked of the database. */
final readonly class OwnFields
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Connection $connection,
        private CurrentBusiness $business,
    ) {
    }

    /** @return list<OwnField> those in use, in the order in which they were made */
    public function of(OwnFieldThing $thing): array
    {
        return true !== $this->business->find()?->hasOwn($thing) ? [] : array_values(
            $this->entities->getRepository(OwnField::class)
                ->findBy(['thing' => $thing, 'over' => false], ['id' => 'ASC']),
        );
    }

    /** @return list<OwnField> all there are */
    public function all(): array
    {
        return array_values(
            $this->entities->getRepository(OwnField::class)
                ->findBy([], ['thing' => 'ASC', 'over' => 'ASC', 'id' => 'ASC']),
        );
    }

    /** @return array<int, string> what stands in the fields of one thing, by field */
    public function values(OwnFieldThing $thing, int $id): array
    {
        if (true !== $this->business->find()?->hasOwn($thing)) {
            return [];
        }
        /** @var array<int, string> $values */
        $values = $this->connection->fetchAllKeyValue(
            'SELECT v.field_id, v.content FROM own_value v JOIN own_field f ON f.id = v.field_id
             WHERE f.thing = ? AND v.thing = ?',
            [$thing->value, $id],
        );

        return $values;
    }

    /** @return array<int, array<int, string>> what stands in the fields of all of them, by thing and field */
    public function valuesOfAll(OwnFieldThing $thing): array
    {
        if (true !== $this->business->find()?->hasOwn($thing)) {
            return [];
        }
        /** @var list<array{thing: int, field: int, content: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT v.thing, v.field_id field, v.content FROM own_value v JOIN own_field f ON f.id = v.field_id
             WHERE f.thing = ?',
            [$thing->value],
        );
        $values = [];
        foreach ($rows as $row) {
            $values[$row['thing']][$row['field']] = $row['content'];
        }

        return $values;
    }

    /**
     * @param list<OwnField> $fields
     *
     * @return list<string> what heads them in a table
     */
    public static function labels(array $fields): array
    {
        return array_map(static fn (OwnField $field): string => $field->label(), $fields);
    }

    /**
     * @param list<OwnField>     $fields
     * @param array<int, string> $values by field
     *
     * @return list<string> the cells of one thing, as the fields stand
     */
    public static function cells(array $fields, array $values): array
    {
        return array_map(static fn (OwnField $field): string => $values[$field->id] ?? '', $fields);
    }

    /** @return array<string, string> what stands on paper of one thing, by the field's name */
    public function onPaper(OwnFieldThing $thing, int $id): array
    {
        $values = $this->values($thing, $id);
        $found = [];
        foreach ($this->of($thing) as $field) {
            if ($field->isOnPaper() && isset($values[$field->id])) {
                $found[$field->label()] = $values[$field->id];
            }
        }

        return $found;
    }

    /** @param string $content empty to leave nothing there */
    public function put(OwnField $field, int $id, string $content): void
    {
        if ('' === $content) {
            $this->connection->executeStatement(
                'DELETE FROM own_value WHERE field_id = ? AND thing = ?',
                [$field->id, $id],
            );
        } else {
            $this->connection->executeStatement(
                'INSERT INTO own_value (field_id, thing, content) VALUES (?, ?, ?)
                 ON DUPLICATE KEY UPDATE content = VALUES(content)',
                [$field->id, $id, $content],
            );
        }
    }
}
