<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use Symfony\Component\DomCrawler\Crawler;
use TallBarrel\Store\Order\SentDocument;

final class OrdersTest extends DeskTestCase
{
    private const DRAFT = 'PO-1082';

    /** @return array<string, mixed> the order page's form as it stands */
    private function form(string $number = self::DRAFT): array
    {
        /** @var array<string, mixed> $values */
        $values = $this->see('/orders/'.$number)
            ->filter('#order')
            ->form()
            ->getPhpValues();
        unset($values['_token']);

        return $values;
    }

    private function line(): int
    {
        return (int) $this->number(
            "SELECT MIN(l.id) FROM order_line l JOIN purchase_order o ON o.id = l.order_id WHERE o.number = 'PO-1082'",
        );
    }

    public function testWhatIsMissingIsMendedOnThePageAndTheOrderGoesOut(): void
    {
        $this->as('mara');
        $this->connection()->executeStatement("UPDATE supplier SET wants_csv = 1 WHERE code = 'LUMEN'");
        $form = $this->form();
        self::assertStringContainsString('No email address', $this->text());
        $this->post('/orders/'.self::DRAFT, ['email' => 'ordrer@lumenfold.example', 'do' => 'send'] + $form);
        self::assertResponseRedirects('/orders/'.self::DRAFT);
        $this->browser->followRedirect();
        self::assertStringContainsString('is on its way to ordrer@lumenfold.example', $this->text());

        $document = $this->entities()
            ->getRepository(SentDocument::class)
            ->findOneBy(['sentTo' => 'ordrer@lumenfold.example']);
        self::assertNotNull($document);
        self::assertStringStartsWith('%PDF-', $document->content());
        self::assertSame($document->sha256, hash('sha256', $document->content()));
        $this->see('/orders/'.self::DRAFT.'/sent/'.$document->id);
        self::assertSame($document->content(), $this->browser->getResponse()->getContent(), 'byte for byte');

        $this->see('/mailbox');
        self::assertStringContainsString('Order PO-1082 from Larkmoor Bee Supply', $this->text());
        self::assertStringContainsString('mara@larkmoor.example', $this->letter()->text(), 'a copy to the sender');
        self::assertStringContainsString('PO-1082.pdf, PO-1082.csv', $this->text(), 'the lines as they asked for them');
        $this->see((string) $this->letter()->filter('a.btn')->first()->attr('href'));
        $eml = (string) $this->browser->getResponse()->getContent();
        self::assertStringContainsString('Reply-To: Mara Ashdown <mara@larkmoor.example>', $eml);
        self::assertStringContainsString(
            rtrim(chunk_split(base64_encode(substr($document->content(), 0, 57)), 76)),
            $eml,
            'the attachment is the kept document',
        );
    }

    private function letter(): Crawler
    {
        return $this->browser
            ->getCrawler()
            ->filter('section')
            ->reduce(static fn (Crawler $one): bool => str_contains($one->text(), 'Order '.self::DRAFT))
            ->first();
    }

    public function testAWrongEmailStandsBesideItsFieldAndNothingIsLost(): void
    {
        $this->as('mara');
        $form = $this->form();
        $form['note'] = 'Ring the bell twice.';
        $this->post('/orders/'.self::DRAFT, ['email' => 'ordrer at lumenfold', 'do' => 'send'] + $form);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('“ordrer at lumenfold” is not an email address', $this->text());
        self::assertSame(
            'ordrer at lumenfold',
            $this->browser->getCrawler()->filter('input[name="email"]')->attr('value'),
        );
        self::assertSame('Ring the bell twice.', $this->browser->getCrawler()->filter('textarea[name="note"]')->text());
        self::assertSame(
            'draft',
            $this->connection()->fetchOne('SELECT state FROM purchase_order WHERE number = ?', [self::DRAFT]),
        );
    }

    public function testTwoPeopleEditingTheSecondIsToldAndKeepsWhatTheyTyped(): void
    {
        $this->as('mara');
        $mine = $theirs = $this->form();
        $line = $this->line();
        self::assertIsArray($theirs['quantity']);
        self::assertIsArray($mine['quantity']);
        $theirs['quantity'][$line] = '5';
        $this->post('/orders/'.self::DRAFT, ['do' => 'save'] + $theirs);
        self::assertResponseRedirects();
        $this->as('rowan');
        $mine['quantity'][$line] = '9';
        $this->post('/orders/'.self::DRAFT, ['do' => 'save'] + $mine);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Mara changed this order while you were typing', $this->text());
        self::assertSame(
            '9',
            $this->browser
                ->getCrawler()
                ->filter('input[name="quantity['.$line.']"]')
                ->attr('value'),
        );
        self::assertSame(5.0, $this->number('SELECT packs FROM order_line WHERE id = ?', [$line]));

        /** @var array<string, mixed> $again */
        $again = $this->browser->getCrawler()->filter('#order')->form()->getPhpValues();
        $this->post('/orders/'.self::DRAFT, ['do' => 'save'] + array_diff_key($again, ['_token' => 1]));
        self::assertSame(
            9.0,
            $this->number('SELECT packs FROM order_line WHERE id = ?', [$line]),
            'saved again, theirs holds',
        );
    }

    public function testLinesAreAddedByCodeOfOursOfTheirsOrAsText(): void
    {
        $this->as('mara');
        foreach (
            [
                ['PK-LBH-L · Honey labels, large, 100', '2', ''],
                ['LF-GIFT-2', '', ''],
                ['9520000015176', '', ''],
                ['hex jar 190 ml', '', ''],
                ['Pallet deposit', '1', '14.00'],
            ] as $i => [$wanted, $quantity, $price]
        ) {
            $this->post(
                '/orders/'.self::DRAFT,
                ['do' => 'save', 'add' => $wanted, 'add_quantity' => $quantity, 'add_price' => $price] + $this->form(),
            );
            self::assertResponseRedirects(null, null, $wanted);
            self::assertSame(
                3.0 + $i,
                $this->number(
                    'SELECT COUNT(*) FROM order_line l JOIN purchase_order o ON o.id = l.order_id WHERE o.number = ?',
                    [self::DRAFT],
                ),
            );
        }
        foreach (
            [
                ['JAR-340R', '1', '', 'does not offer JAR-340R; Vetrasol Glassworks'],
                ['Nonsuch', '1', '', 'offers nothing called “Nonsuch”'],
                ['PK-LBH-L', 'many', '', '“many” is not a number'],
                ['PK-LBH-L', '0', '', 'how many are wanted'],
            ] as [$wanted, $quantity, $price, $reason]
        ) {
            $this->post(
                '/orders/'.self::DRAFT,
                ['do' => 'save', 'add' => $wanted, 'add_quantity' => $quantity, 'add_price' => $price] + $this->form(),
            );
            self::assertResponseStatusCodeSame(422);
            self::assertStringContainsString($reason, $this->text());
        }
    }

    public function testLinesAreChosenFromTheSuppliersListWhichSaysWhoElseSellsThem(): void
    {
        $this->as('mara');
        self::assertCount(0, $this->see('/orders/'.self::DRAFT)->filter('#their-list table'), 'opened when wanted');
        $list = $this->see('/orders/'.self::DRAFT.'?list=1')
            ->filter('#their-list table');
        self::assertStringContainsString('Vetrasol, Tindavik', $list->filter('tr[data-words*="jar-370h"]')->text());
        self::assertCount(0, $list->filter('tr[data-words*="jar-340r"]'), 'only what they offer');
        [$jar, $box] = array_map(
            fn (string $code): int => (int) $this->number(
                'SELECT o.id FROM offer o JOIN supplier s ON s.id = o.supplier_id
                    WHERE s.code = ? AND o.supplier_code = ?',
                ['LUMEN', $code],
            ),
            ['LF-JAR-370H', 'LF-GIFT-3'],
        );
        $this->connection()->executeStatement('UPDATE offer SET blocked = 1 WHERE id = ?', [$box]);
        $this->post('/orders/'.self::DRAFT, ['do' => 'save', 'pick' => [$jar => '4', $box => '2']] + $this->form());
        self::assertResponseStatusCodeSame(422);
        self::assertSame(
            2.0,
            $this->number(
                'SELECT COUNT(*) FROM order_line l JOIN purchase_order o ON o.id = l.order_id WHERE o.number = ?',
                [self::DRAFT],
            ),
            'nothing half done',
        );
        $this->post('/orders/'.self::DRAFT, ['do' => 'save', 'pick' => [$jar => '4', $box => '']] + $this->form());
        self::assertResponseRedirects();
        self::assertSame(
            4.0,
            $this->number(
                'SELECT l.packs FROM order_line l JOIN purchase_order o ON o.id = l.order_id
                    WHERE o.number = ? AND l.offer_id = ?',
                [self::DRAFT, $jar],
            ),
        );
    }

    public function testALineIsTakenOut(): void
    {
        $this->as('mara');
        $this->post('/orders/'.self::DRAFT, ['do' => 'save', 'remove' => [$this->line() => '1']] + $this->form());
        self::assertSame(
            1.0,
            $this->number(
                'SELECT COUNT(*) FROM order_line l JOIN purchase_order o ON o.id = l.order_id WHERE o.number = ?',
                [self::DRAFT],
            ),
        );
    }

    public function testAnOwnerApprovesWhatABuyerMayNot(): void
    {
        $this->as('rowan');
        $version = $this->see('/orders/PO-1081')->filter('.strip input[name="version"]')->attr('value');
        $this->post('/orders/PO-1081/approve', ['version' => $version]);
        $this->browser->followRedirect();
        self::assertStringContainsString('PO-1081 is approved', $this->text());
        $version = $this->browser->getCrawler()->filter('.strip input[name="version"]')->attr('value');
        $this->post('/orders/PO-1081/send', ['version' => $version]);
        $this->browser->followRedirect();
        self::assertStringContainsString('is on its way to biuro@tindavik.example', $this->text());
        $this->post('/orders/PO-1081/send', ['version' => $version]);
        $this->browser->followRedirect();
        self::assertStringContainsString('was changed by somebody else meanwhile', $this->text());
        self::assertSame(
            1.0,
            $this->number(
                "SELECT COUNT(*) FROM sent_document d JOIN purchase_order o ON o.id = d.order_id
                    WHERE o.number = 'PO-1081'",
            ),
            'sent once',
        );
    }

    public function testALateOrderIsAcknowledgedForAnotherDay(): void
    {
        $this->as('mara');
        $day = (new \DateTimeImmutable('+5 days'))->format('Y-m-d');
        $version = $this->see('/orders/PO-1079')->filter('aside input[name="version"]')->attr('value');
        $this->post('/orders/PO-1079/acknowledge', ['version' => $version, 'promised' => $day]);
        self::assertSame(
            $day,
            $this->connection()->fetchOne("SELECT promised_on FROM purchase_order WHERE number = 'PO-1079'"),
        );
    }
}
