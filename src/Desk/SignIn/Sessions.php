<?php

declare(strict_types=1);

namespace TallBarrel\Desk\SignIn;

use Symfony\Component\HttpFoundation\Session\Storage\Handler\PdoSessionHandler;

/**
 * Sessions are rows, so that any machine knows them. A page that changes nothing in one writes nothing: that it is in
 * use is written with what stands in it, once a minute (metadata_update_threshold); how long a visit may last is told
 * by its Visit.
 */
final class Sessions extends PdoSessionHandler
{
    public function updateTimestamp(string $sessionId, string $data): bool
    {
        return true;
    }
}
