<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

/** How goods get from one site to another. */
final class WaysTest extends DeskTestCase
{
    public function testMistakesStandAtTheirFieldAndNothingIsLost(): void
    {
        $this->as('rowan');
        $this->post('/settings/ways', $this->typed(['days-1-2' => '90', 'cost-1-2' => 'cheap', 'days-2-1' => '3']));
        self::assertResponseStatusCodeSame(422);
        $page = $this->browser->getCrawler();
        foreach (['days-1-2' => ['90', 'up to 60'], 'cost-1-2' => ['cheap', 'cheap']] as $field => [$typed, $reason]) {
            $box = $page->filter(sprintf('[name="%s"]', $field));
            self::assertSame($typed, $box->attr('value'));
            self::assertSame('true', $box->attr('aria-invalid'));
            self::assertStringContainsString($reason, $box->closest('td')?->text() ?? '');
        }
        self::assertSame('3', $page->filter('[name="days-2-1"]')->attr('value'));
        self::assertSame(0.0, $this->number('SELECT COUNT(*) FROM site_way'));
    }

    public function testWhereNothingGoesNothingIsProposedNorMoved(): void
    {
        $this->as('rowan');
        /** @var array{site_id: int, source: string, code: string}|false $moves */
        $moves = $this->connection()->fetchAssociative(
            "SELECT p.site_id, JSON_VALUE(p.moves, '$[0].site') source, i.code FROM proposal p
             JOIN item i ON i.id = p.item_id WHERE p.moves <> '[]' ORDER BY p.id LIMIT 1",
        );
        self::assertIsArray($moves);
        [$source, $target, $code] = [$moves['source'], (string) $moves['site_id'], $moves['code']];
        $pair = sprintf('%s-%s', $source, $target);
        $this->post('/settings/ways', $this->typed(['days-'.$pair => '']));
        $this->browser->followRedirect();
        $this->work();
        self::assertSame(
            0.0,
            $this->number(
                "SELECT COUNT(*) FROM proposal
                 WHERE site_id = ? AND JSON_CONTAINS(JSON_EXTRACT(moves, '$[*].site'), ?)",
                [$target, $source],
            ),
        );
        $this->post('/transfer', [
            'key' => 'closed',
            'item' => $code,
            'from' => $source,
            'to' => $target,
            'quantity' => '1',
            'back' => 'reorder',
        ]);
        self::assertStringContainsString('Nothing goes from', $this->browser->followRedirect()->text());
    }

    public function testOnlyTheOwnerSetsThem(): void
    {
        $this->as('tam');
        self::assertCount(0, $this->see('/settings/ways')->filter('main form button'));
        $this->post('/settings/ways', $this->typed([]));
        self::assertResponseStatusCodeSame(403);
    }

    /**
     * @param array<string, string> $other
     *
     * @return array<string, string>
     */
    private function typed(array $other): array
    {
        $typed = [];
        foreach ([1, 2, 3] as $from) {
            foreach (array_diff([1, 2, 3], [$from]) as $to) {
                $typed[sprintf('days-%d-%d', $from, $to)] = '1';
                $typed[sprintf('cost-%d-%d', $from, $to)] = '2.00';
            }
        }

        return array_replace($typed, $other);
    }
}
