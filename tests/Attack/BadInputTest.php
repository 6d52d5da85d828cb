<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Attack;

use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\DomCrawler\Field\FileFormField;
use Symfony\Component\DomCrawler\Field\FormField;
use Symfony\Component\DomCrawler\Form;
use TallBarrel\Tests\Desk\DeskTestCase;
use TallBarrel\Tests\Face\Pages;

/**
 * Rubbish in every field of every form of every page: no answer is an error of ours, and what is refused leaves
 * nothing behind. Drawn from a seed, so that what went wrong once goes wrong again.
 */
final class BadInputTest extends DeskTestCase
{
    private const SEED = 20261126;
    /** More of them: TALLBARREL_BAD_ROUNDS, as bin/bench faults says. */
    private const ROUNDS = 4;
    /** Too many rows to be counted each time. */
    private const LARGE = ['stock_movement'];
    /** What tells that somebody was here, what was looked up once, and what comes by files only. */
    private const NOT_OURS = ['visit', 'kept_figure', 'cache_items', 'sessions', 'sales_day'];
    /** What would end the run, or send it elsewhere. */
    private const LEFT_OUT = ['/sign-out', '/settings/demo', '/look-at'];

    /** @return list<string> */
    private static function rubbish(): array
    {
        return [
            '', ' ', '0', '-1', '-0.001', '1e9', '999999999999999999999', '1,000', '1.000,5', 'NaN', 'null', "\xff\xfe",
            "a\0b", "line\nline", '2026-02-31', '0000-00-00', '9999-12-31', '31.12.2026', '<script>alert(1)</script>',
            "'; DROP TABLE item; --", '=1+1', '€', '🐝', str_repeat('x', 300), str_repeat('9', 40), '../../etc/passwd',
            '1=2=3', '50@30 50@', '25:61', '%', '٣',
        ];
    }

    public function testRubbishInAnyFormIsAnsweredAndNeverAnErrorOfOurs(): void
    {
        mt_srand(self::SEED);
        $this->browser->disableReboot();
        $this->as('rowan');
        $token = (string) $this->see('/')->filter('meta[name="csrf-token"]')->attr('content');
        $rounds = (int) (getenv('TALLBARREL_BAD_ROUNDS') ?: self::ROUNDS);
        $wrong = $half = $open = [];
        $sent = 0;
        foreach (array_merge(...array_values(Pages::ALL)) as $address) {
            if (str_contains($address, '{')) {
                continue;
            }
            foreach ($this->forms($this->see($address)) as $action => $values) {
                for ($round = 0; $round < $rounds; ++$round) {
                    $typed = self::spoiled($values, 0 === $round);
                    $level = $this->connection()->getTransactionNestingLevel();
                    $this->connection()->beginTransaction();
                    $before = $this->rows();
                    try {
                        $this->browser->request('POST', $action, ['_token' => $token] + $typed);
                        $status = $this->browser->getResponse()->getStatusCode();
                    } catch (\Throwable) {
                        $status = 500;
                    }
                    $this->entities()->clear();
                    if ($this->connection()->getTransactionNestingLevel() !== $level + 1) {
                        $open[] = $action.' '.$status;
                    }
                    if ($status >= 400 && $status < 500 && $before !== $this->rows()) {
                        $half[] = $action.' '.mb_scrub((string) json_encode($typed,
                            \JSON_INVALID_UTF8_SUBSTITUTE));
                    }
                    while ($this->connection()->getTransactionNestingLevel() > $level) {
                        $this->connection()->rollBack();
                    }
                    ++$sent;
                    if ($status >= 500) {
                        $wrong[$action.' '.mb_scrub((string) json_encode($typed,
                            \JSON_INVALID_UTF8_SUBSTITUTE))] = $status;
                    }
                }
            }
        }
        self::assertGreaterThan(500, $sent);
        self::assertSame([], $wrong, sprintf('of %d', $sent));
        self::assertSame([], $open, sprintf('of %d left a transaction open', $sent));
        self::assertSame([], $half, sprintf('of %d refused, and something is left', $sent));
    }

    /** @return array<mixed> how much there is of everything that is kept */
    private function rows(): array
    {
        static $query = null;
        if (!is_string($query)) {
            $tables = $this->connection()->fetchFirstColumn(
                "SELECT table_name FROM information_schema.tables
                 WHERE table_schema = DATABASE() AND table_type = 'BASE TABLE'",
            );
            $query = implode(' UNION ALL ', array_map(
                static fn (string $table): string => sprintf(
                    in_array($table, self::LARGE, true)
                        ? "SELECT '%1\$s', MAX(id) FROM `%1\$s`"
                        : "SELECT '%1\$s', COUNT(*) FROM `%1\$s`",
                    $table,
                ),
                array_diff(array_filter($tables, is_string(...)), self::NOT_OURS),
            ));
        }

        return $this->connection()->fetchAllKeyValue($query);
    }

    /** @return array<string, array<string, string>> what stands in every form that changes something, by its address */
    private function forms(Crawler $page): array
    {
        $forms = [];
        $here = $page->getUri() ?? '';
        foreach ($page->filter('form[method="post"]') as $node) {
            if (!$node instanceof \DOMElement) {
                continue;
            }
            $form = new Form($node, $here);
            $values = [];
            foreach ($form->all() as $field) {
                if ($field instanceof FormField && !$field instanceof FileFormField && '_token' !== $field->getName()) {
                    $value = $field->getValue();
                    $values[$field->getName()] = is_string($value) ? $value : '';
                }
            }
            $actions = [(string) parse_url($form->getUri(), \PHP_URL_PATH)];
            foreach ((new Crawler($node))->filter('[formaction]')->extract(['formaction']) as $other) {
                $actions[] = is_string($other) ? (string) parse_url($other, \PHP_URL_PATH) : '';
            }
            foreach (array_diff($actions, self::LEFT_OUT) as $action) {
                $forms[$action] = $values;
            }
        }

        return $forms;
    }

    /**
     * What stands there, with some of it spoiled: one or two fields, or most of them.
     *
     * @param array<string, string> $values
     *
     * @return array<string, mixed>
     */
    private static function spoiled(array $values, bool $most): array
    {
        $rubbish = self::rubbish();
        $names = array_keys($values);
        shuffle($names);
        foreach (array_slice($names, 0, $most ? 60 : mt_rand(1, 2)) as $name) {
            $values[$name] = $rubbish[mt_rand(0, count($rubbish) - 1)];
        }
        parse_str(implode('&', array_map(
            static fn (string $name, string $value): string => urlencode($name).'='.urlencode($value),
            array_keys($values),
            $values,
        )), $fields);

        return array_filter($fields, static fn (int|string $name): bool => is_string($name), \ARRAY_FILTER_USE_KEY);
    }
}
