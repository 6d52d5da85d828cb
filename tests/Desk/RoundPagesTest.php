<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use TallBarrel\Core\Sourcing\QuoteState;
use TallBarrel\Store\Quote\Quote;
use TallBarrel\Store\Quote\QuoteAnswer;
use TallBarrel\Store\Quote\QuoteItem;
use TallBarrel\Store\Quote\QuoteRound;

/** The pages of a quote round as the buyer works with them: mended drafts, answers taken by telephone, reminders. */
final class RoundPagesTest extends DeskTestCase
{
    private function round(): QuoteRound
    {
        $this->entities()->clear();
        $round = $this->entities()->getRepository(QuoteRound::class)->findOneBy([], ['id' => 'DESC']);
        self::assertNotNull($round);

        return $round;
    }

    private static function page(QuoteRound $round, string $more = ''): string
    {
        return '/compare/rounds/'.$round->number.$more;
    }

    private function draft(string $item = 'JAR-370H', string $units = '960'): QuoteRound
    {
        $this->as('mara');
        $this->post('/compare/rounds', ['item' => $item, 'units' => $units]);
        self::assertResponseRedirects();

        return $this->round();
    }

    /**
     * @param array<string, mixed> $changed
     *
     * @return array<string, mixed>
     */
    private static function fields(QuoteRound $round, array $changed = []): array
    {
        $ticked = [];
        foreach ($round->quotes() as $quote) {
            $ticked[$quote->supplier->id] = '1';
        }

        return $changed + [
            'version' => (string) $round->version(),
            'reply_by' => '2026-11-27',
            'wanted_on' => '2026-12-18',
            'site' => (string) $round->site()->id,
            'supplier' => $ticked,
            'add' => '',
            'add_quantities' => '',
            'requirements' => '',
        ];
    }

    private function out(): QuoteRound
    {
        $round = $this->draft();
        $this->post(self::page($round), self::fields($round, ['send' => '1']));
        self::assertResponseRedirects();

        return $this->round();
    }

    /** @return array{Quote, QuoteItem} */
    private function first(QuoteRound $round): array
    {
        return [$round->quotes()[0], $round->items()[0]];
    }

    public function testARoundBegunFromAnItemAsksWhoeverSellsIt(): void
    {
        $round = $this->draft();
        $sellers = $this->connection()->fetchFirstColumn(
            "SELECT DISTINCT s.code FROM offer_in_force f JOIN item i ON i.id = f.item_id
                JOIN supplier s ON s.id = f.supplier_id
                WHERE i.code = 'JAR-370H' AND '2026-11-23' BETWEEN f.from_day AND f.until_day ORDER BY s.code",
        );
        $asked = array_map(static fn (Quote $quote): string => $quote->supplier->code, $round->quotes());
        sort($asked);
        self::assertGreaterThan(1, count($asked));
        self::assertSame($sellers, $asked);
        self::assertSame('960', (string) $round->items()[0]->needed());
    }

    public function testARoundBegunWithoutAQuantityAsksForOne(): void
    {
        self::assertSame('1', (string) $this->draft(units: '')->items()[0]->needed());
        self::assertSame('1', (string) $this->draft(units: 'many')->items()[0]->needed());
        self::assertSame([], $this->draft('no such item')->items());
    }

    /** @return \Generator<string, array{array<string, mixed>, string, string}> */
    public static function wrongDrafts(): \Generator
    {
        yield 'a day that has passed' => [
            ['reply_by' => '2026-11-20'],
            'Answers cannot be asked for by 20 Nov 2026, which has passed.',
            '2026-11-20',
        ];
        yield 'goods before answers' => [
            ['wanted_on' => '2026-11-25'],
            'The goods are wanted on 25 Nov 2026, before answers are due on 27 Nov 2026.',
            '2026-11-25',
        ];
        yield 'no day' => [['reply_by' => '31 February'], '31 February', '31 February'];
        yield 'a quantity of nothing' => [
            ['add' => 'Gift ribbon', 'add_quantities' => '0'],
            'Ask for a quantity above 0',
            'Gift ribbon',
        ];
        yield 'words for a quantity' => [
            ['add' => 'Gift ribbon', 'add_quantities' => 'a few'],
            '“a” is not a number; expected a quantity such as 12 or 2.5.',
            'Gift ribbon',
        ];
        yield 'an item twice' => [
            ['add' => 'JAR-370H', 'add_quantities' => '5'],
            'JAR-370H is asked for already.',
            'JAR-370H',
        ];
        yield 'nobody to ask' => [['supplier' => [], 'send' => '1'], 'Nobody is asked yet; tick a supplier.', ''];
    }

    /** @param array<string, mixed> $changed */
    #[DataProvider('wrongDrafts')]
    public function testADraftThatCannotBeIsRefusedAndKeepsWhatWasTyped(
        array $changed,
        string $words,
        string $typed,
    ): void {
        $round = $this->draft();
        $this->post(self::page($round), self::fields($round, $changed));
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString($words, $this->text());
        if ('' !== $typed) {
            self::assertStringContainsString(
                htmlspecialchars($typed),
                (string) $this->browser->getResponse()->getContent(),
            );
        }
        $round = $this->round();
        self::assertTrue($round->isDraft());
        self::assertCount(1, $round->items());
    }

    public function testWhoSavesSecondIsToldAndLosesNothing(): void
    {
        $round = $this->draft();
        $fields = self::fields($round, ['requirements' => 'On pallets, please.']);
        $this->post(self::page($round), $fields);
        self::assertResponseRedirects();
        self::assertSame('On pallets, please.', $this->round()->requirements());
        $this->post(self::page($round), ['requirements' => 'By train, please.'] + $fields);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Somebody changed this round while you were typing.', $this->text());
        self::assertStringContainsString('By train, please.', (string) $this->browser->getResponse()->getContent());
        self::assertSame('On pallets, please.', $this->round()->requirements());
    }

    public function testItemsComeAndGoAndSuppliersAreTickedAndUnticked(): void
    {
        $round = $this->draft();
        $all = $round->quotes();
        $other = (string) (int) $this->number(
            'SELECT MIN(id) FROM supplier WHERE id NOT IN ('.implode(', ', array_map(
                static fn (Quote $quote): string => (string) $quote->supplier->id,
                $all,
            )).')',
        );
        $this->post(self::page($round), self::fields($round, [
            'add' => 'Gift ribbon, 25 mm',
            'add_quantities' => '40 100',
            'supplier' => [$all[0]->supplier->id => '1', $other => '1'],
        ]));
        self::assertResponseRedirects();
        $round = $this->round();
        self::assertSame(
            ['JAR-370H', 'free text 2'],
            array_map(static fn (QuoteItem $item): string => $item->code(), $round->items()),
        );
        self::assertSame(
            [$all[0]->supplier->id, (int) $other],
            array_map(static fn (Quote $quote): int => $quote->supplier->id, $round->quotes()),
        );
        $this->post(self::page($round), self::fields($round, ['remove' => [$round->items()[0]->id => '1']]));
        self::assertSame(
            ['free text 2'],
            array_map(static fn (QuoteItem $item): string => $item->code(), $this->round()->items()),
        );
    }

    public function testADrawingGoesAlongAndComesBackAsItWas(): void
    {
        $round = $this->draft();
        $fields = self::fields($round);
        $file = (string) tempnam(sys_get_temp_dir(), 'drawing');
        file_put_contents($file, "jar, 63 mm thread\n");
        $token = $this->see('/')->filter('meta[name="csrf-token"]')->attr('content');
        $this->browser->request(
            'POST',
            self::page($round),
            ['_token' => $token] + $fields,
            ['file' => new UploadedFile($file, 'thread “63”.txt', 'text/plain', null, true)],
        );
        self::assertResponseRedirects();
        $round = $this->round();
        [$kept] = $round->files();
        $this->see(self::page($round, '/file/'.$kept->id));
        self::assertResponseIsSuccessful();
        self::assertSame("jar, 63 mm thread\n", $this->browser->getResponse()->getContent());
        self::assertStringContainsString(
            'attachment',
            (string) $this->browser->getResponse()->headers->get('Content-Disposition'),
        );
        self::assertSame('application/octet-stream', $this->browser->getResponse()->headers->get('Content-Type'));
        $this->see(self::page($round, '/file/'.($kept->id + 1)));
        self::assertResponseStatusCodeSame(404);
    }

    public function testAnAnswerByTelephoneIsTypedByUs(): void
    {
        $round = $this->out();
        [$quote, $item] = $this->first($round);
        $this->see(self::page($round, '/'.$quote->supplier->code));
        self::assertResponseIsSuccessful();
        $this->post(self::page($round, '/'.$quote->supplier->code), [
            'price-'.$item->id.'-0' => '0.71',
            'most-'.$item->id => '2000',
            'multiple-'.$item->id => '48',
            'code-'.$item->id => 'HX-370',
            'lead_days' => '12',
            'charges' => '35',
            'note' => 'Said on the telephone.',
        ]);
        self::assertResponseRedirects(self::page($round));
        [$quote] = $this->first($this->round());
        $answer = $quote->standing();
        self::assertNotNull($answer);
        self::assertSame(
            [QuoteAnswer::TYPED, 12, '35', 'Said on the telephone.'],
            [$answer->via, $answer->leadDays, (string) $answer->charges?->strippedOfTrailingZeros(), $answer->note],
        );
        self::assertSame(
            [['960', '0.71'], '2000', '48', 'HX-370'],
            [
                $answer->lines[0]['prices'][0],
                $answer->lines[0]['most'],
                $answer->lines[0]['multiple'],
                $answer->lines[0]['code'],
            ],
        );
    }

    /** @return \Generator<string, array{array<string, string>, string}> */
    public static function wrongAnswers(): \Generator
    {
        yield 'no days' => [['price' => '0.71', 'lead_days' => ''], 'How many days does delivery take?'];
        yield 'words' => [['price' => '0.71', 'lead_days' => 'soon'], '“soon” is not a number of days, such as 12.'];
        yield 'a year and more' => [
            ['price' => '0.71', 'lead_days' => '366'],
            '366 days to deliver is out of range; expected 0 to 365.',
        ];
        yield 'no price' => [
            ['price' => '', 'lead_days' => '9'],
            'No price has been given. To quote nothing at all, decline instead.',
        ];
        yield 'a limit without a price' => [
            ['price' => '', 'most' => '60', 'lead_days' => '9'],
            'A price is missing here.',
        ];
        yield 'a price in words' => [['price' => 'cheap', 'lead_days' => '9'], 'cheap'];
        yield 'a day that is none' => [
            ['price' => '0.71', 'lead_days' => '9', 'valid_until' => '2026-02-30'],
            '2026-02-30',
        ];
    }

    /** @param array<string, string> $typed */
    #[DataProvider('wrongAnswers')]
    public function testAWrongAnswerIsSaidBesideItsField(array $typed, string $words): void
    {
        $round = $this->out();
        [$quote, $item] = $this->first($round);
        $fields = [];
        foreach ($typed as $name => $value) {
            $fields[match ($name) {
                'price' => 'price-'.$item->id.'-0',
                'most' => 'most-'.$item->id,
                default => $name,
            }] = $value;
        }
        $this->post(self::page($round, '/'.$quote->supplier->code), $fields);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString($words, $this->text());
        self::assertSame(QuoteState::Asked, $this->first($this->round())[0]->state());
    }

    public function testASupplierThatDeclinesByTelephone(): void
    {
        $round = $this->out();
        [$quote] = $this->first($round);
        $this->post(self::page($round, '/'.$quote->supplier->code), ['decline' => '1', 'reason' => 'Kiln is cold.']);
        self::assertResponseRedirects(self::page($round));
        [$quote] = $this->first($this->round());
        self::assertSame([QuoteState::Declined, 'Kiln is cold.'], [$quote->state(), $quote->declineReason()]);
        $this->see(self::page($round));
        self::assertStringContainsString('Kiln is cold.', $this->text());
    }

    public function testAWithdrawnLinkLeadsNowhereAndTheNextLetterCarriesANewOne(): void
    {
        $round = $this->out();
        [$quote] = $this->first($round);
        $before = $quote->token();
        $this->see('/quote/'.$before);
        self::assertResponseIsSuccessful();
        $this->post(self::page($round, '/'.$quote->supplier->code), ['withdraw' => '1']);
        self::assertResponseRedirects(self::page($round, '/'.$quote->supplier->code));
        $this->see('/quote/'.$before);
        self::assertResponseStatusCodeSame(404);
        $this->see('/quote/'.$this->first($this->round())[0]->token());
        self::assertResponseIsSuccessful();
    }

    public function testWhoHasNotAnsweredIsRemindedAndOnlyOnceADay(): void
    {
        $round = $this->out();
        $asked = count($round->quotes());
        $this->post(self::page($round, '/remind'));
        $this->browser->followRedirect();
        self::assertStringContainsString(sprintf('%d reminded.', $asked), $this->text());
        $this->post(self::page($round, '/remind'));
        $this->browser->followRedirect();
        self::assertStringContainsString('Everybody has answered, or was reminded today.', $this->text());
    }

    public function testARoundIsClosedWithoutBuyingAndThenNothingCounts(): void
    {
        $round = $this->out();
        [$quote] = $this->first($round);
        $this->post(self::page($round, '/close'), ['version' => (string) ($round->version() + 7)]);
        $this->browser->followRedirect();
        self::assertFalse($this->round()->isSettled(), 'somebody changed it in the meantime');
        $this->post(self::page($round, '/close'), ['version' => (string) $this->round()->version()]);
        $this->browser->followRedirect();
        self::assertStringContainsString('is closed; whoever answered has been thanked.', $this->text());
        self::assertTrue($this->round()->isSettled());
        $this->post(self::page($round, '/'.$quote->supplier->code), ['decline' => '1']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('comes too late to count', $this->text());
    }

    public function testWhatIsNotThereIsSaid(): void
    {
        $round = $this->out();
        foreach (['/compare/rounds/RQ-0', self::page($round, '/NOBODY')] as $path) {
            $this->see($path);
            self::assertResponseStatusCodeSame(404, $path);
        }
    }

    public function testTheStockroomAsksNobody(): void
    {
        $round = $this->out();
        $this->as('tam');
        foreach (['/remind', '/close', '/award', ''] as $act) {
            $this->post(self::page($round, $act), ['version' => (string) $round->version()]);
            self::assertResponseStatusCodeSame(403, 'POST '.$act);
        }
        self::assertTrue($this->round()->isOpen());
    }
}
