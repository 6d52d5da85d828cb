<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Orders;

use TallBarrel\Core\Refused;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Work\Ordering\LetterWords;
use TallBarrel\Work\Ordering\SeenOrder;
use TallBarrel\Work\Ordering\SendOrder;
use TallBarrel\Work\Ordering\ShareLines;
use TallBarrel\Work\Ordering\SubmitOrder;

/** What the pressed button asks beside saving a draft: that it is sent, handed in, split, copied from or taken in. */
final class NextStep
{
    private bool $refused = false;
    private ?string $number = null;

    public function __construct(
        private readonly SubmitOrder $submit,
        private readonly SendOrder $send,
        private readonly ShareLines $share,
    ) {
    }

    /** @return string what to tell: what was done, or why it was refused although the draft is saved */
    public function take(PurchaseOrder $order, Fields $fields, ?LetterWords $letter, Person $person): string
    {
        $number = $order->number;
        [$do, $other] = explode(' ', $fields->text('do').' ');
        $over = '1' === $fields->text('over_draw');
        $seen = SeenOrder::now($order);
        $this->refused = false;
        $this->number = $number;
        try {
            return match ($do) {
                'copy' => implode(' ', $this->share->copy($seen, $other, $person)),
                'merge' => sprintf(
                    '%s is taken in; there is one draft now, %s.',
                    $other,
                    $this->share->merge($seen, $other, $person)->number,
                ),
                'split' => $this->split($seen, $fields, $person, $number),
                'send' => self::onItsWay($this->send->send($seen, $person, $over, $letter)),
                'submit' => sprintf(
                    '%s now awaits approval.',
                    $this->submit->submit($seen, $person, $over)->number,
                ),
                default => $number.' is saved.',
            };
        } catch (Refused $refused) {
            $this->refused = true;

            return $refused->getMessage();
        }
    }

    /** Whether it was refused; the draft is saved nevertheless. */
    public function isRefused(): bool
    {
        return $this->refused;
    }

    /** The order somebody goes on with. */
    public function number(): ?string
    {
        return $this->number;
    }

    public static function onItsWay(PurchaseOrder $order): string
    {
        return sprintf('%s is on its way to %s.', $order->number, $order->supplier->contact()?->email());
    }

    private function split(SeenOrder $seen, Fields $fields, Person $person, string $from): string
    {
        $this->number = $this->share->split($seen, array_keys($fields->each('remove')), $person)->number;

        return sprintf('These lines have a draft of their own, apart from %s.', $from);
    }
}
