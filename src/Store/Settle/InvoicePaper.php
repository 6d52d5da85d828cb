<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Supplier;

/** A file that an invoice came as, or that came with it; until the invoice is entered it belongs to none. */
#[ORM\Entity]
#[ORM\Table(name: 'invoice_paper')]
class InvoicePaper
{
    public const XML = 'application/xml';
    public const CSV = 'text/csv';

    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\ManyToOne, ORM\JoinColumn(onDelete: 'CASCADE')]
    private ?Invoice $invoice = null;

    #[ORM\ManyToOne, ORM\JoinColumn(onDelete: 'CASCADE')]
    private ?CreditNote $credit = null;

    /** @param string $content bytes; its kind was seen in them and not taken from its name */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Supplier $supplier,
        #[ORM\Column(length: 120)] public readonly string $name,
        #[ORM\Column(length: 20)] public readonly string $mime,
        #[ORM\Column(type: 'blob', length: 16777215)] private mixed $content,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Person $by,
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $at,
        /** The file that it was in. */
        #[ORM\ManyToOne, ORM\JoinColumn(onDelete: 'CASCADE')] public readonly ?InvoicePaper $within = null,
    ) {
    }

    /** Of a credit note: it stays with that. */
    public function belongsToCredit(CreditNote $note): void
    {
        $this->credit = $note;
    }

    public function credit(): ?CreditNote
    {
        return $this->credit;
    }

    /** @throws Refused if it is of another one already */
    public function belongsTo(Invoice $invoice): void
    {
        if (null !== $this->invoice && $this->invoice !== $invoice) {
            throw new Refused(sprintf('%s is of the invoice %s already.', $this->name, $this->invoice->number));
        }
        $this->invoice = $invoice;
    }

    /** Whether an invoice can be made of it. */
    public function isRead(): bool
    {
        return in_array($this->mime, [self::XML, self::CSV], true);
    }

    public function invoice(): ?Invoice
    {
        return $this->invoice;
    }

    public function content(): string
    {
        if (is_resource($this->content)) {
            $this->content = (string) stream_get_contents($this->content, -1, 0);
        }

        return is_string($this->content) ? $this->content : '';
    }
}
