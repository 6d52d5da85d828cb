<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Person\KeyAct;
use TallBarrel\Store\Person\SingleKeys;

final class OwnKeysTest extends DeskTestCase
{
    public function testEachPersonHasTheirOwn(): void
    {
        $this->as('mara');
        $this->post('/settings/keys', ['Find' => '', 'Help' => '?', 'Go' => 'J', 'Skip' => 'y']);
        self::assertResponseRedirects('/settings/keys');
        $key = fn (string $act): ?string => $this->see('/')->filter('[data-act="'.$act.'"]')->attr('data-own');
        self::assertSame(['', '?', 'j', 'y', ''], array_map($key, ['Find', 'Help', 'Go', 'Skip', 'Why']));
        $this->as('tam');
        self::assertSame(['/', '?', '', ''], array_map($key, ['Find', 'Help', 'Go', 'Skip']), 'as usual');
    }

    public function testAKeyCannotDoTwoThingsNorBeADigit(): void
    {
        $this->as('mara');
        $page = $this->post('/settings/keys', ['Go' => 'k', 'Why' => 'K', 'Skip' => '5', 'Rows' => 'rr']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('“k” does “Go to a stage: this, then its letter” already', $this->text());
        self::assertStringContainsString('“5” begins a quantity', $this->text());
        self::assertStringContainsString('“rr” is more than one key', $this->text());
        self::assertSame('K', $page->filter('input[name="Why"]')->attr('value'), 'what was typed stays');
        self::assertNull($this->connection()->fetchOne("SELECT single_keys FROM person WHERE email LIKE 'mara%'"));
    }

    public function testWhatIsNotKeptIsAsUsual(): void
    {
        $keys = SingleKeys::kept(['Go' => 'g']);
        self::assertSame(['/', 'g'], [$keys->of(KeyAct::Find), $keys->of(KeyAct::Go)]);
        self::assertSame([], $keys->doubles());
        $this->expectException(InvalidValue::class);
        $keys->with(KeyAct::Go, '-');
    }
}
