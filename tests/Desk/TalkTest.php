<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

/** Colleagues ask each other about an order on the order. */
final class TalkTest extends DeskTestCase
{
    private function say(string $subject, string $words, string $to = '', string $about = ''): void
    {
        $id = '' === $to ? '' : (string) (int) $this->number(
            'SELECT id FROM person WHERE email = ?',
            [$to.'@larkmoor.example'],
        );
        $this->post('/talk', ['subject' => $subject, 'words' => $words, 'to' => $id, 'about' => $about]);
    }

    public function testWhoeverIsAskedSeesItOnTodayUntilTheyAnswerAndThenWhoAsked(): void
    {
        $this->as('mara');
        $this->say('order PO-1079', "Is Friday too late?\nThe fair is on Saturday.", 'tam');
        self::assertResponseRedirects('/orders/PO-1079#talk');
        self::assertStringContainsString('waits for Tam', $this->see('/orders/PO-1079')->filter('#talk')->text());
        self::assertStringNotContainsString('Is Friday too late', $this->see('/')->text(), 'not to who asked');

        $this->as('tam');
        $today = $this->see('/');
        self::assertStringContainsString('Mara asks you', $today->text());
        self::assertStringContainsString('PO-1079: “Is Friday too late? The fair', $today->text());
        self::assertCount(1, $today->filter('.wait a[href="/orders/PO-1079#talk"]'));
        $this->say('order PO-1079', 'No, Friday is fine.');
        self::assertStringNotContainsString('Mara asks you', $this->see('/')->text());

        $this->as('mara');
        self::assertStringContainsString('Tam has answered you', $this->see('/')->text());
        $page = $this->see('/orders/PO-1079');
        self::assertStringContainsString('No, Friday is fine.', $page->filter('#talk')->text());
        $path = (string) $page->filter('#talk form[action$="/settle"]')->attr('action');
        $this->as('iris');
        $this->post($path);
        self::assertStringContainsString('Only who asked or was asked', $this->see('/')->text());
        $this->as('mara');
        $this->post($path);
        self::assertStringNotContainsString('Tam has answered you', $this->see('/')->text());
        self::assertCount(0, $this->see('/orders/PO-1079')->filter('#talk form[action$="/settle"]'));
    }

    public function testALineIsTalkedAboutAndAWordOnAnotherAnswersNothing(): void
    {
        $this->as('mara');
        $this->say('order PO-1079', 'Do we need so many?', 'tam', '1');
        self::assertMatchesRegularExpression(
            '/line 1: .+ Do we need so many/',
            $this->see('/orders/PO-1079')->filter('#talk .said')->text(),
        );
        $this->as('tam');
        $this->say('order PO-1079', 'These are for the fair.', '', '2');
        self::assertStringContainsString('Mara asks you', $this->see('/')->text());
        $this->say('order PO-1079', 'Yes.', '', '1');
        self::assertStringNotContainsString('Mara asks you', $this->see('/')->text());
        $this->say('order PO-1079', 'Something else.', '', '99');
        $page = $this->see('/orders/PO-1079');
        self::assertStringContainsString('There is no line 99 on PO-1079.', $page->text());
        self::assertCount(0, $page->filter('#talk .said:contains("Something else.")'));
        self::assertSame('Something else.', $page->filter('#talk textarea')->text(), 'and nothing typed is lost');
    }

    public function testEveryThingHasItsOwnTalkAndNothingElseHas(): void
    {
        $this->as('rowan');
        $this->say('item JAR-370H', 'The lids <b>stick</b>.');
        self::assertResponseRedirects('/items/JAR-370H#talk');
        $talk = $this->see('/items/JAR-370H')->filter('#talk');
        self::assertStringContainsString('The lids <b>stick</b>.', $talk->text(), 'words are words');
        self::assertStringNotContainsString('The lids', $this->see('/items/JAR-340R')->text());
        foreach (['item NONE', 'person 1', ''] as $subject) {
            $this->browser->request('POST', '/talk', [
                'subject' => $subject,
                'words' => 'Hello',
                '_token' => $talk->filter('input[name="_token"]')->attr('value'),
            ]);
            self::assertResponseStatusCodeSame(404);
        }
        foreach (['' => 'Say something first', str_repeat('x', 1001) => 'At most 1000'] as $words => $refusal) {
            $this->say('item JAR-370H', $words);
            self::assertStringContainsString($refusal, $this->see('/items/JAR-370H')->text());
        }
        $this->say('item JAR-370H', 'Well?', 'rowan');
        self::assertStringContainsString('Asking oneself', $this->see('/items/JAR-370H')->text());
    }
}
