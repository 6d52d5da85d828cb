<?php

declare(strict_types=1);

namespace TallBarrel\Exchange;

use Monolog\Attribute\AsMonologProcessor;
use Monolog\LogRecord;
use Symfony\Component\HttpFoundation\RequestStack;

/** Every line of a log names the request it belongs to. */
final readonly class NamedLines
{
    public function __construct(private RequestStack $requests)
    {
    }

    #[AsMonologProcessor]
    public function name(LogRecord $record): LogRecord
    {
        $name = $this->requests->getMainRequest()?->attributes->get('_name');
        if (is_string($name)) {
            $record->extra['request'] = $name;
        }

        return $record;
    }
}
