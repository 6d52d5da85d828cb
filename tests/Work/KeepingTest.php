<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Quantity\Gtin;
use TallBarrel\Core\Quantity\Numerals;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Store\Agreement\Agreement;
use TallBarrel\Store\Business\OwnField;
use TallBarrel\Store\Business\OwnFieldKind;
use TallBarrel\Store\Business\OwnFields;
use TallBarrel\Store\Business\OwnFieldThing;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Person\PersonLink;
use TallBarrel\Store\Person\Role;
use TallBarrel\Store\Person\Visits;
use TallBarrel\Store\Site\BinKind;
use TallBarrel\Store\Site\DeliveryPlace;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Site\SiteKind;
use TallBarrel\Store\Site\Sites;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;
use TallBarrel\Store\Stock\StockState;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Keeping\ChangeSupplier;
use TallBarrel\Work\Keeping\CountInAnotherUnit;
use TallBarrel\Work\Keeping\JoinItems;
use TallBarrel\Work\Keeping\KeepDeliveryPlace;
use TallBarrel\Work\Keeping\KeepOwnFields;
use TallBarrel\Work\Keeping\KeepPerson;
use TallBarrel\Work\Keeping\KeepSite;
use TallBarrel\Work\Keeping\PersonDetails;
use TallBarrel\Work\Keeping\SiteDetails;

/** People, sites, places, suppliers, items and fields of one's own: what is kept, and what stands in the way. */
final class KeepingTest extends StoreTestCase
{
    /** @return list<string> what was noted of it, the latest first */
    private static function noted(string $subject): array
    {
        /** @var list<string> $words */
        $words = self::connection()->fetchFirstColumn(
            'SELECT words FROM audit_entry WHERE subject = ? ORDER BY id DESC',
            [$subject],
        );

        return $words;
    }

    private static function number(string $query, mixed ...$values): int
    {
        $count = self::connection()->fetchOne($query, $values);

        return is_numeric($count) ? (int) $count : self::fail('No number: '.$query);
    }

    private static function details(string $name, string $email, Role $role = Role::Buyer): PersonDetails
    {
        $details = new PersonDetails();
        [$details->name, $details->email, $details->role] = [$name, $email, $role];

        return $details;
    }

    private static function invited(string $email = 'odo@larkmoor.example', Role $role = Role::Stockroom): Person
    {
        $problems = new Problems();
        $person = self::get(KeepPerson::class)->invite(
            self::details('Odo Pell', $email, $role),
            self::person('rowan'),
            $problems,
        );
        self::assertSame([], $problems->all());
        self::assertNotNull($person);

        return $person;
    }

    /** @return \Generator<string, array{string, string, array<string, string>}> */
    public static function wrongPeople(): \Generator
    {
        yield 'nobody' => [' ', 'odo@larkmoor.example', ['name' => 'A person needs a name.']];
        yield 'somebody else' => [
            'Odo Pell',
            'MARA@larkmoor.example',
            ['email' => 'has this address already.'],
        ];
        yield 'no address' => ['Odo Pell', 'odo at home', ['email' => 'odo at home']];
        yield 'neither' => ['', '', ['name' => 'A person needs a name.', 'email' => '']];
    }

    /** @param array<string, string> $words by field */
    #[DataProvider('wrongPeople')]
    public function testNobodyIsInvitedWithoutANameAndAnAddressOfTheirOwn(
        string $name,
        string $email,
        array $words,
    ): void {
        $before = self::number('SELECT COUNT(*) FROM person');
        $problems = new Problems();
        $invited = self::get(KeepPerson::class)->invite(self::details($name, $email), self::person('rowan'), $problems);
        self::assertNull($invited);
        self::assertSame(array_keys($words), array_keys($problems->all()));
        foreach ($words as $field => $expected) {
            self::assertStringContainsString($expected, (string) $problems->at($field));
        }
        self::assertSame($before, self::number('SELECT COUNT(*) FROM person'));
    }

    public function testWhoIsInvitedGetsALinkAndMayNotSpendAnythingYet(): void
    {
        $person = self::invited();
        self::assertFalse($person->hasPassword());
        self::assertSame(Role::Stockroom, $person->role());
        self::assertFalse($person->maySpend(Money::of(1, 'EUR')));
        self::assertSame(
            [PersonLink::INVITATION],
            self::connection()->fetchFirstColumn('SELECT purpose FROM person_link WHERE person_id = ?', [$person->id]),
        );
        self::assertSame(['Invited as stockroom'], self::noted('person '.$person->id));
        // Another link takes the place of the first.
        $first = self::connection()->fetchOne('SELECT hash FROM person_link WHERE person_id = ?', [$person->id]);
        self::get(KeepPerson::class)->inviteAgain($person, self::person('rowan'));
        self::assertSame(1, self::number(
            'SELECT COUNT(*) FROM person_link WHERE person_id = ? AND used_at IS NULL AND hash <> ?',
            $person->id,
            $first,
        ));
        self::assertSame('Was sent a link to choose a password', self::noted('person '.$person->id)[0]);
    }

    public function testWhoHasAPasswordIsSentALinkToChooseAnother(): void
    {
        $mara = self::person('mara');
        self::get(KeepPerson::class)->inviteAgain($mara, self::person('rowan'));
        self::assertSame(
            PersonLink::FORGOTTEN,
            self::connection()->fetchOne(
                'SELECT purpose FROM person_link WHERE person_id = ? ORDER BY id DESC LIMIT 1',
                [$mara->id],
            ),
        );
    }

    public function testNobodySaysYesToThemselves(): void
    {
        $mara = self::person('mara');
        $details = PersonDetails::of($mara, self::get(Sites::class)->all());
        $details->approver = $mara;
        $problems = new Problems();
        self::get(KeepPerson::class)->change($mara, $details, self::person('rowan'), $problems);
        self::assertSame(['approver' => 'Nobody says yes to themselves.'], $problems->all());
    }

    public function testSomebodyWithAnotherRoleSignsInAnew(): void
    {
        $mara = self::person('mara');
        $visits = self::get(Visits::class);
        $visits->begin($mara, 'A browser', '127.0.0.1');
        self::assertNotSame([], $visits->of($mara));
        $details = PersonDetails::of($mara, self::get(Sites::class)->all());
        $details->name = 'Mara Alder-Finch';
        $problems = new Problems();
        self::get(KeepPerson::class)->change($mara, $details, self::person('rowan'), $problems);
        self::assertSame([], $problems->all());
        self::assertNotSame([], $visits->of($mara), 'another name ends no visit');
        $details->role = Role::Bookkeeper;
        self::get(KeepPerson::class)->change($mara, $details, self::person('rowan'), $problems);
        self::assertSame([], $visits->of($mara));
        self::assertStringContainsString(
            'Mara Alder-Finch, mara@larkmoor.example, bookkeeper',
            self::noted('person '.$mara->id)[0],
        );
    }

    public function testAnotherAddressIsToldToTheOldOne(): void
    {
        $mara = self::person('mara');
        $details = PersonDetails::of($mara, self::get(Sites::class)->all());
        $details->email = 'mara.finch@larkmoor.example';
        $problems = new Problems();
        self::get(KeepPerson::class)->change($mara, $details, self::person('rowan'), $problems);
        self::assertSame([], $problems->all());
        self::assertSame('mara.finch@larkmoor.example', $mara->email());
    }

    public function testOneOwnerWhoCanSignInIsAlwaysLeft(): void
    {
        $rowan = self::person('rowan');
        $keep = self::get(KeepPerson::class);
        self::mustRefuse(
            static fn () => $keep->block($rowan, $rowan),
            'You cannot block yourself; another owner can.',
        );
        $second = self::invited('vale@larkmoor.example', Role::Owner);
        $details = PersonDetails::of($rowan, self::get(Sites::class)->all());
        $details->role = Role::Buyer;
        $problems = new Problems();
        $keep->change($rowan, $details, $second, $problems);
        self::assertSame(
            $rowan->name().' is the last owner who can sign in; make somebody else owner first.',
            $problems->at('role'),
            'who was invited only cannot sign in yet',
        );
        self::assertSame(Role::Owner, $rowan->role());
        $second->usePassword('a hash');
        self::entities()->flush();
        $keep->block($rowan, $second);
        self::assertTrue($rowan->isBlocked());
    }

    public function testTheLastOwnerIsNotBlockedBySomebodyElse(): void
    {
        $rowan = self::person('rowan');
        self::mustRefuse(
            static fn () => self::get(KeepPerson::class)->block($rowan, self::person('mara')),
            'is the last owner who can sign in; make somebody else owner first.',
        );
        self::assertFalse($rowan->isBlocked());
    }

    public function testWhoIsBlockedIsOutAtOnceAndMayBeLetInAgain(): void
    {
        $mara = self::person('mara');
        $visits = self::get(Visits::class);
        $visits->begin($mara, 'A browser', '127.0.0.1');
        $keep = self::get(KeepPerson::class);
        $keep->block($mara, self::person('rowan'));
        self::assertTrue($mara->isBlocked());
        self::assertSame([], $visits->of($mara));
        $keep->unblock($mara, self::person('rowan'));
        self::assertFalse($mara->isBlocked());
        self::assertSame(['Let in again', 'Blocked'], array_slice(self::noted('person '.$mara->id), 0, 2));
    }

    public function testCodesOfALostDeviceAreAskedForNoLonger(): void
    {
        $mara = self::person('mara');
        $mara->useCodes('JBSWY3DPEHPK3PXP');
        self::entities()->flush();
        $visits = self::get(Visits::class);
        $visits->begin($mara, 'A lost telephone', '127.0.0.1');
        self::get(KeepPerson::class)->dropCodes($mara, self::person('rowan'));
        self::assertNull($mara->codeSecret());
        self::assertSame([], $visits->of($mara));
        self::assertSame('One-time codes are asked for no longer', self::noted('person '.$mara->id)[0]);
    }

    private static function siteDetails(string $code, string $name = 'North barn', string $bins = ''): SiteDetails
    {
        $details = new SiteDetails();
        [$details->code, $details->name, $details->bins] = [$code, $name, $bins];

        return $details;
    }

    private static function opened(string $code = 'NORTH', string $bins = ''): Site
    {
        $problems = new Problems();
        $site = self::get(KeepSite::class)->open(
            self::siteDetails($code, bins: $bins),
            self::person('rowan'),
            $problems,
        );
        self::assertSame([], $problems->all());
        self::assertNotNull($site);

        return $site;
    }

    public function testASiteIsOpenedWithItsBins(): void
    {
        $site = self::opened(' north ', 'A-01, A-02; B/1  B.2');
        self::assertSame('NORTH', $site->code);
        self::assertSame(
            ['A-01', 'A-02', 'B/1', 'B.2'],
            array_map(static fn ($bin): string => $bin->code, $site->bins()),
        );
        self::assertSame(SiteKind::Depot, $site->kind());
        self::assertSame($site, self::get(Sites::class)->byCode('NORTH'));
        self::assertSame(['Opened'], self::noted('site NORTH'));
    }

    /** @return \Generator<string, array{string, string, string, string, string}> */
    public static function wrongSites(): \Generator
    {
        yield 'no code' => ['', 'Barn', '', 'code', '“” is no code of a site'];
        yield 'a bad code' => ['NORTH BARN', 'Barn', '', 'code', '“NORTH BARN” is no code of a site'];
        yield 'one there is' => ['ferry', 'Barn', '', 'code', 'There is a site FERRY already.'];
        yield 'no name' => ['NORTH', ' ', '', 'name', 'A site needs a name.'];
        yield 'a bad bin' => ['NORTH', 'Barn', 'A-01 B*2', 'bins', '“B*2” is no code of a bin'];
        yield 'a bin twice' => ['NORTH', 'Barn', 'A-01 a-01', 'bins', 'Barn has a bin A-01 already.'];
        yield 'far too many' => [
            'NORTH',
            'Barn',
            implode(' ', array_map(static fn (int $n): string => 'B'.$n, range(1, 501))),
            'bins',
            '501 bins at once; at most 500.',
        ];
    }

    #[DataProvider('wrongSites')]
    public function testASiteThatCannotBeIsNotOpened(
        string $code,
        string $name,
        string $bins,
        string $field,
        string $words,
    ): void {
        $before = self::number('SELECT COUNT(*) FROM site');
        $problems = new Problems();
        $site = self::get(KeepSite::class)->open(
            self::siteDetails($code, $name, $bins),
            self::person('rowan'),
            $problems,
        );
        self::assertNull($site);
        self::assertStringContainsString($words, (string) $problems->at($field));
        self::assertSame($before, self::number('SELECT COUNT(*) FROM site'));
    }

    public function testFiveHundredBinsAreNotTooMany(): void
    {
        $codes = implode(' ', array_map(static fn (int $n): string => 'B'.$n, range(1, 500)));
        self::assertCount(500, self::opened('NORTH', $codes)->bins());
    }

    public function testNoSiteIsInTheEndSuppliedByItself(): void
    {
        $first = self::opened('FIRST');
        $second = self::opened('SECOND');
        $second->serveAs(SiteKind::Shop, $first);
        $third = self::opened('THIRD');
        $third->serveAs(SiteKind::Shop, $second);
        self::mustRefuse(
            static fn () => $first->serveAs(SiteKind::Depot, $third),
            'North barn would in the end be supplied by itself.',
        );
        self::mustRefuse(static fn () => $first->serveAs(SiteKind::Depot, $first), 'supplied by itself');
        $details = SiteDetails::of($first);
        $details->suppliedBy = $third;
        $problems = new Problems();
        self::get(KeepSite::class)->change($first, $details, self::person('rowan'), $problems);
        self::assertStringContainsString('supplied by itself', (string) $problems->at('supplied_by'));
    }

    public function testAnEmptySiteIsClosedAndOpenedAgainAndPlanningHearsOfBoth(): void
    {
        $site = self::opened();
        $keep = self::get(KeepSite::class);
        self::connection()->executeStatement('DELETE FROM moved_item');
        $keep->close($site, self::person('rowan'));
        self::assertTrue($site->isClosed());
        self::assertNotContains($site, self::get(Sites::class)->all());
        self::assertContains($site, self::get(Sites::class)->withClosed());
        $moved = self::number('SELECT COUNT(*) FROM moved_item');
        self::assertGreaterThan(0, $moved);
        $keep->openAgain($site, self::person('rowan'));
        self::assertFalse($site->isClosed());
        self::assertSame(['Opened again', 'Closed', 'Opened'], self::noted('site NORTH'));
    }

    public function testASiteWhereSomethingLiesOrIsExpectedStaysOpen(): void
    {
        $keep = self::get(KeepSite::class);
        self::mustRefuse(
            static fn () => $keep->close(self::site('FERRY'), self::person('rowan')),
            'cannot be closed yet: stock lies there.',
        );
        $site = self::opened();
        $item = self::item('KEEP-1');
        $offer = self::offer($item, '10');
        $order = self::sentOrder([[$offer, 2]], 'PO-KEEP-1');
        self::connection()->executeStatement('UPDATE order_line SET site_id = ? WHERE order_id = ?', [
            $site->id,
            $order->id,
        ]);
        self::mustRefuse(
            static fn () => $keep->close($site, self::person('rowan')),
            'North barn cannot be closed yet: orders are on their way there.',
        );
    }

    public function testTheLastSiteStaysOpen(): void
    {
        $sites = self::get(Sites::class)->all();
        foreach (array_slice($sites, 1) as $site) {
            $site->close(self::now());
        }
        self::entities()->flush();
        self::mustRefuse(
            static fn () => self::get(KeepSite::class)->close($sites[0], self::person('rowan')),
            'The last site cannot be closed.',
        );
    }

    public function testABinIsTakenOutWhenNothingIsPutThere(): void
    {
        $site = self::opened('NORTH', 'A-01 A-02');
        [$used, $free] = $site->bins();
        $keep = self::get(KeepSite::class);
        $item = self::item('KEEP-2');
        self::entities()->flush();
        self::connection()->executeStatement(
            'INSERT INTO stocking (item_id, site_id, bin_id) VALUES (?, ?, ?)',
            [$item->id, $site->id, $used->id],
        );
        self::mustRefuse(
            static fn () => $keep->dropBin($used, self::person('rowan')),
            'A-01 is where KEEP-2 is put; give it another bin first.',
        );
        $keep->binHolds($used, BinKind::Held, self::person('rowan'));
        self::assertSame(BinKind::Held, $used->kind());
        $keep->dropBin($free, self::person('rowan'));
        self::assertSame(1, self::number('SELECT COUNT(*) FROM bin WHERE site_id = ?', $site->id));
        self::assertSame(
            ['Bin A-02 taken out', 'Bin A-01 is held', 'Opened'],
            self::noted('site NORTH'),
        );
    }

    public function testPlacesGoodsMayBeSentToHaveNamesOfTheirOwn(): void
    {
        $keep = self::get(KeepDeliveryPlace::class);
        $add = static function (string $name, string $address) use ($keep): ?string {
            $problems = new Problems();
            $keep->add($name, $address, $problems);

            return $problems->at('place');
        };
        self::assertNull($add('Honey fair', 'Market Square, Town'));
        self::assertSame('There is a place “Honey fair” already.', $add(' Honey fair ', 'Elsewhere'));
        self::assertSame('The place needs a name.', $add(' ', 'Market Square, Town'));
        self::assertSame('Say where it is.', $add('Yard', ' '));
        $place = self::entities()->getRepository(DeliveryPlace::class)->findOneBy(['name' => 'Honey fair']);
        self::assertNotNull($place);
        $id = $place->id;
        $keep->drop($id);
        $keep->drop($id);
        self::assertSame(0, self::number("SELECT COUNT(*) FROM delivery_place WHERE name = 'Honey fair'"));
    }

    public function testASupplierIsArchivedWhenNothingIsOpenWithIt(): void
    {
        $item = self::item('KEEP-3');
        $supplier = self::supplier();
        $order = self::sentOrder([[self::offer($item, '10', 12, $supplier), 2]], 'PO-KEEP-3');
        $keep = self::get(ChangeSupplier::class);
        self::mustRefuse(
            static fn () => $keep->archive($supplier, self::person('rowan')),
            'Testing Supplies is still in PO-KEEP-3; finish that first.',
        );
        self::assertFalse($supplier->isArchived());
        $order->cancel();
        self::entities()->flush();
        $keep->archive($supplier, self::person('rowan'));
        self::assertTrue($supplier->isArchived());
        $keep->takeUp($supplier, self::person('rowan'));
        self::assertFalse($supplier->isArchived());
        self::assertSame(['Taken up again', 'Archived'], self::noted('supplier '.$supplier->code));
    }

    private static function stock(Item $item, string $units, string $cost): void
    {
        self::get(Ledger::class)->enter([
            new Posting(
                $item->id,
                self::site('FERRY')->id,
                MovementKind::Opening,
                BigDecimal::of($units),
                BigDecimal::of($cost),
                self::now()->setTime(0, 0),
                'counted',
                'keeping-'.$item->code,
                '',
                StockState::Available,
            ),
        ], self::person('rowan')->id);
    }

    public function testADoubleGoesOverWithStockCostAndNames(): void
    {
        $into = self::item('KEEP-4', '2');
        $double = self::item('KEEP-5', '5');
        $double->mark(Gtin::of('4006381333931'));
        self::entities()->flush();
        self::stock($into, '30', '2');
        self::stock($double, '10', '5');
        $offer = self::offer($double, '7');
        self::entities()->flush();
        self::get(JoinItems::class)->join($double, $into, self::person('rowan'));
        self::entities()->clear();
        $into = self::entities()->find(Item::class, $into->id);
        $double = self::entities()->find(Item::class, $double->id);
        self::assertNotNull($into);
        self::assertNotNull($double);
        self::assertSame(['40', '0'], [self::held($into), self::held($double)]);
        self::assertSame('2.75', (string) $into->averageCost()?->strippedOfTrailingZeros(), '(30 × 2 + 10 × 5) / 40');
        self::assertTrue($double->isArchived());
        self::assertSame(['04006381333931', null], [$into->gtin()?->digits, $double->gtin()?->digits]);
        self::assertSame('KEEP-5, Test item KEEP-5', $into->furtherNames());
        self::assertSame(
            $into->id,
            self::number('SELECT item_id FROM offer WHERE id = ?', $offer->id),
        );
        self::assertSame(['Took in its double KEEP-5'], self::noted('item KEEP-4'));
        self::assertSame(['Joined with KEEP-4'], self::noted('item KEEP-5'));
    }

    public function testItemsThatAreCountedDifferentlyAreNotJoined(): void
    {
        $join = static fn (Item $double, Item $into): callable => static fn () => self::get(JoinItems::class)->join(
            $double,
            $into,
            self::person('rowan'),
        );
        [$plain, $lots] = [self::item('KEEP-6'), self::item('KEEP-7', null, true)];
        $litres = new Item('KEEP-8', 'By the litre', 'Tests', Unit::Litre);
        self::entities()->persist($litres);
        self::entities()->flush();
        self::mustRefuse($join($plain, $plain), 'KEEP-6 cannot be joined with itself.');
        self::mustRefuse(
            $join($lots, $plain),
            'KEEP-7 is counted in pcs by lot, KEEP-6 in pcs; make that the same first.',
        );
        self::mustRefuse($join($plain, $litres), 'KEEP-6 is counted in pcs, KEEP-8 in l; make that the same first.');
        self::sentOrder([[self::offer($plain, '10'), 2]], 'PO-KEEP-6');
        self::mustRefuse($join($plain, self::item('KEEP-9')), 'KEEP-6 is still in PO-KEEP-6; finish that first.');
    }

    public function testAnItemIsCountedInAnotherUnitWithAllThatSpeaksOfIt(): void
    {
        $item = self::item('KEEP-10', '8');
        $offer = self::offer($item, '96', 12);
        self::entities()->flush();
        self::stock($item, '30', '8');
        self::get(CountInAnotherUnit::class)->count($item, Unit::Each, BigDecimal::of(4), self::person('rowan'));
        $counted = self::entities()->find(Item::class, $item->id);
        self::assertNotNull($counted);
        self::assertSame('120', self::held($counted));
        self::assertSame('2', (string) $counted->averageCost()?->strippedOfTrailingZeros(), 'a quarter of 8 each');
        self::assertSame(48, self::number('SELECT pack_content FROM offer WHERE id = ?', $offer->id));
        self::assertSame('Counted in pcs: one pcs is 4', self::noted('item KEEP-10')[0]);
    }

    public function testAnItemIsNotCountedAnewByNothingOrWhileItIsSpokenOf(): void
    {
        $counting = self::get(CountInAnotherUnit::class);
        $count = static fn (Item $item, string $factor): callable => static fn () => $counting
            ->count($item, Unit::Each, BigDecimal::of($factor), self::person('rowan'));
        $item = self::item('KEEP-11');
        self::entities()->flush();
        self::mustRefuse($count($item, '0'), 'One pcs cannot be 0 pcs.');
        self::mustRefuse($count($item, '-2'), 'One pcs cannot be -2 pcs.');
        self::mustRefuse($count($item, '1000001'), 'One pcs cannot be 1000001 pcs.');
        $agreement = new Agreement('A-KEEP', self::supplier(), $item, '');
        $agreement->promise(Agreement::QUANTITY, BigDecimal::of(100), null, null, BigDecimal::zero());
        $agreement->hold(self::now()->modify('-1 day'), self::now()->modify('+9 days'), '');
        self::entities()->persist($agreement);
        self::entities()->flush();
        self::mustRefuse($count($item, '2'), 'KEEP-11 is still in the agreement A-KEEP; finish that first.');
        $agreement->end();
        self::entities()->flush();
        $count($item, '2')();
        self::assertSame('Counted in pcs: one pcs is 2', self::noted('item KEEP-11')[0]);
    }

    private static function field(string $label, OwnFieldKind $kind = OwnFieldKind::Text, bool $paper = true): OwnField
    {
        $problems = new Problems();
        self::get(KeepOwnFields::class)->add(
            OwnFieldThing::Delivery,
            $label,
            $kind,
            $paper,
            [],
            self::person('rowan'),
            $problems,
        );
        self::assertSame([], $problems->all());
        $fields = self::get(OwnFields::class)->of(OwnFieldThing::Delivery);
        foreach ($fields as $field) {
            if ($field->label() === trim($label)) {
                return $field;
            }
        }
        self::fail('No field '.$label);
    }

    public function testAFieldOfOnesOwnIsAddedOnceFilledEmptiedAndGivenUp(): void
    {
        $field = self::field('Seal number');
        $problems = new Problems();
        self::get(KeepOwnFields::class)->add(
            OwnFieldThing::Delivery,
            ' seal NUMBER ',
            OwnFieldKind::Text,
            false,
            [],
            self::person('rowan'),
            $problems,
        );
        self::assertSame('There is a field “Seal number” there already.', $problems->at('label'));
        $keep = self::get(KeepOwnFields::class);
        $own = self::get(OwnFields::class);
        $fill = static function (string $typed, int $id = 4711) use ($keep, $field): Problems {
            $problems = new Problems();
            $keep->fill(
                OwnFieldThing::Delivery,
                $id,
                [$field->id => $typed],
                Numerals::with(Numerals::POINT),
                $problems,
            );

            return $problems;
        };
        self::assertTrue($fill('S-77')->areNone());
        self::assertTrue($fill('S-78', 4712)->areNone());
        self::assertSame([$field->id => 'S-77'], $own->values(OwnFieldThing::Delivery, 4711));
        self::assertSame(['Seal number' => 'S-77'], $own->onPaper(OwnFieldThing::Delivery, 4711));
        $all = $own->valuesOfAll(OwnFieldThing::Delivery);
        self::assertSame(['S-77', 'S-78'], [$all[4711][$field->id], $all[4712][$field->id]]);
        self::assertTrue($fill('')->areNone());
        self::assertSame([], $own->values(OwnFieldThing::Delivery, 4711), 'an empty one is not kept');
        $keep->giveUp($field, true, self::person('rowan'));
        self::assertNotContains($field, $own->of(OwnFieldThing::Delivery));
        self::assertContains($field, $own->all());
        $keep->giveUp($field, false, self::person('rowan'));
        self::assertContains($field, $own->of(OwnFieldThing::Delivery));
        self::assertSame(
            ['Seal number taken up again', 'Seal number given up', 'Added Seal number on every delivery'],
            self::noted('own fields'),
        );
    }

    public function testWhatIsTypedInAFieldOfOnesOwnIsReadByItsKind(): void
    {
        $number = self::field('Pallets', OwnFieldKind::Number, false);
        $problems = new Problems();
        self::get(KeepOwnFields::class)->fill(
            OwnFieldThing::Delivery,
            4713,
            [$number->id => 'three'],
            Numerals::with(Numerals::POINT),
            $problems,
        );
        self::assertStringContainsString('three', (string) $problems->at('own-'.$number->id));
        self::assertSame([], self::get(OwnFields::class)->values(OwnFieldThing::Delivery, 4713));
        self::assertSame([], self::get(OwnFields::class)->onPaper(OwnFieldThing::Delivery, 4713));
    }
}
