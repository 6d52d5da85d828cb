<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use Symfony\Bundle\FrameworkBundle\Console\Application;
use Symfony\Component\Console\Tester\CommandTester;
use TallBarrel\Store\Audit\Seals;

/** What was done is noted with what was before and is now, in a chain that shows what is missing. */
final class TrailTest extends DeskTestCase
{
    private function seals(): Seals
    {
        $seals = self::getContainer()->get(Seals::class);
        self::assertInstanceOf(Seals::class, $seals);

        return $seals;
    }

    /** @return array{int, string} code and words */
    private function verify(string ...$options): array
    {
        $tester = new CommandTester((new Application(self::bootKernel()))->find('audit:verify'));
        $given = [];
        foreach ($options as $option) {
            [$name, $value] = explode('=', $option, 2) + ['', true];
            $given[$name] = $value;
        }
        $code = $tester->execute($given);

        return [$code, (string) preg_replace('/\s+/', ' ', $tester->getDisplay())];
    }

    public function testALimitThatIsChangedStandsThereWithWhatItWas(): void
    {
        $this->as('rowan');
        $form = $this->see('/settings/limits')->filter('form#limits')->form();
        $field = array_key_first(array_filter(
            $form->getValues(),
            static fn (mixed $value, int|string $name): bool => '2500' === $value
                && str_starts_with((string) $name, 'order['),
            \ARRAY_FILTER_USE_BOTH,
        ));
        self::assertIsString($field);
        $this->browser->submit($form, [$field => '54580']);
        $text = $this->see('/trail?words=limits')->filter('table')->text();
        self::assertStringContainsString('spending limit: 2500 → 54580', $text);
        self::assertStringContainsString('Rowan', $text);
        $file = $this->see('/trail/file.csv?words=limits');
        self::assertStringContainsString(',2500,54580', (string) $this->browser->getResponse()->getContent());
        self::assertCount(0, $file->filter('table'));
        $before = $this->see('/trail?words=limits&until=2026-11-22')->text();
        self::assertStringContainsString('Nothing was noted', $before);
        $this->see('/trail?from=22.11.26');
        self::assertResponseStatusCodeSame(422);
    }

    public function testASecretIsNeverNoted(): void
    {
        $this->as('mara');
        $this->post('/settings/access/password', ['old' => 'larkmoor-honey', 'new' => 'seven green kettles']);
        $changes = (string) json_encode($this->connection()->fetchFirstColumn(
            'SELECT changes FROM audit_entry WHERE changes IS NOT NULL',
        ));
        self::assertStringContainsString('(changed)', $changes);
        self::assertStringNotContainsString('$2y$', $changes);
    }

    public function testWhoDoesNotOwnTheBusinessDoesNotReadIt(): void
    {
        foreach (['mara', 'tam', 'iris'] as $name) {
            $this->as($name);
            foreach (['/trail', '/trail/file.csv'] as $path) {
                $this->see($path);
                self::assertResponseStatusCodeSame(403, $name);
            }
        }
    }

    public function testAChainShowsWhatWasChangedAndWhatIsMissing(): void
    {
        while (null !== $this->seals()->seal()) {
        }
        $head = $this->seals()->head();
        self::assertGreaterThan(5, $head->entries);
        self::assertSame(0, $this->verify('--known='.$head->toString())[0]);
        self::assertSame($head->toString().' ', $this->verify('--head')[1]);

        $this->connection()->executeStatement("UPDATE audit_entry SET words = 'nothing' WHERE seal = 3");
        [$code, $said] = $this->verify();
        self::assertSame(1, $code);
        self::assertStringContainsString('Entry 3 (', $said);
        self::assertStringContainsString('is not as it was written', $said);

        $this->connection()->executeStatement('DELETE FROM audit_entry WHERE seal = 3');
        self::assertSame(['Entry 3 is missing.'], array_slice($this->seals()->faults(), 0, 1));

        $this->connection()->executeStatement('DELETE FROM audit_entry WHERE seal > ?', [$head->entries - 2]);
        self::assertStringContainsString(
            sprintf('went on to %d once', $head->entries),
            implode(' ', $this->seals()->faults($head)),
        );
    }

    public function testAChainMadeAnewIsNotTheOneThatWasKnown(): void
    {
        while (null !== $this->seals()->seal()) {
        }
        $known = $this->seals()->head();
        $this->connection()->executeStatement("UPDATE audit_entry SET words = 'nothing' WHERE seal = 2");
        $this->connection()->executeStatement('UPDATE audit_entry SET seal = NULL, hash = NULL');
        while (null !== $this->seals()->seal()) {
        }
        self::assertSame([], $this->seals()->faults());
        self::assertSame(
            [sprintf('Entry %d is not the one that was known.', $known->entries)],
            $this->seals()->faults($known),
        );
        self::assertSame(2, $this->verify('--known=12 abc')[0]);
    }

    public function testWhatIsNotedIsSealedByAWorker(): void
    {
        $this->connection()->executeStatement('UPDATE audit_entry SET seal = NULL, hash = NULL');
        $this->work();
        self::assertSame(0, $this->seals()->waiting());
    }

    public function testPagesFollowEachOtherWithoutAGapThoughSomeWereNotedLater(): void
    {
        $this->as('rowan');
        $all = (int) $this->number('SELECT COUNT(*) FROM audit_entry');
        $seen = $days = [];
        $page = $this->see('/trail');
        for ($turn = 0; $turn < 20; ++$turn) {
            foreach ($page->filter('tbody tr') as $row) {
                $seen[] = $row->textContent;
                $days[] = strtotime(trim(substr(ltrim($row->textContent), 0, 20)));
            }
            $more = $page->selectLink('Earlier');
            if (0 === $more->count()) {
                break;
            }
            $page = $this->browser->click($more->link());
        }
        self::assertCount($all, $seen);
        $sorted = $days;
        rsort($sorted);
        self::assertSame($sorted, $days);
    }
}
