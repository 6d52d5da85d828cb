<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Exchange;

use Symfony\Component\Mailer\Event\FailedMessageEvent;
use Symfony\Component\Mime\Email;
use TallBarrel\Exchange\Mail\LetterFate;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Tests\Store\StoreTestCase;

final class LetterFateTest extends StoreTestCase
{
    public function testARefusedLetterIsNotedOnItsOrderOnceHoweverOftenItIsTried(): void
    {
        $fate = self::get(LetterFate::class);
        $letter = (new Email())->subject('Order PO-1 from us')->to('a@b.example')->from('c@d.example')->text('…');
        $letter->getHeaders()->addTextHeader(LetterFate::HEADER, 'PO-FATE');
        $fate->refused(new FailedMessageEvent($letter, new \RuntimeException('mailbox 100 % full')));
        $fate->refused(new FailedMessageEvent($letter, new \RuntimeException('mailbox 100 % full')));
        self::assertSame(
            ['Could not be mailed: “Order PO-1 from us”: mailbox 100 % full'],
            array_map(static fn ($entry): string => $entry->words, self::get(Audit::class)->of('PO-FATE')),
        );
        $fate->refused(new FailedMessageEvent((new Email())->subject('x'), new \RuntimeException('no order')));
        self::assertCount(1, self::get(Audit::class)->of('PO-FATE'));
    }
}
