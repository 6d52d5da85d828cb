<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Response;
use TallBarrel\Work\Keeping\SheetFile;
use TallBarrel\Work\Keeping\TableFile;

/** A table that somebody takes away, as CSV or as a workbook. */
final readonly class TakenFile
{
    /** Forms it may have, as a requirement of a route. */
    public const FORMATS = 'csv|xlsx';
    private const TYPES = [
        'csv' => 'text/csv; charset=utf-8',
        'xlsx' => 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    ];

    public function __construct(private TableFile $table, private SheetFile $book)
    {
    }

    /**
     * @param string                 $name   without its ending
     * @param iterable<list<string>> $rows   the first names the columns
     * @param string                 $format csv or xlsx
     * @param string                 $title  of the sheet
     */
    public function of(string $name, iterable $rows, string $format = 'csv', string $title = ''): Response
    {
        $content = 'xlsx' === $format
            ? $this->book->sheet('' === $title ? ucfirst($name) : $title, $rows)
            : $this->table->write($rows);

        return new Response($content, 200, [
            'Content-Type' => self::TYPES[$format] ?? self::TYPES['csv'],
            'Content-Disposition' => HeaderUtils::makeDisposition('attachment', $name.'.'.$format),
        ]);
    }
}
