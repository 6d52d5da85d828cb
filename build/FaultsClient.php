<?php

declare(strict_types=1);

/**
 * Somebody at work while the machine is being broken: asks for something, begins an order, sends it, counts it in. What
 * got no clear answer is pressed again, by the same key, until it is said to be done or not to be done. What they were
 * told is written to a file, a line each.
 */
final class FaultsClient
{
    private const PATIENCE = 60;

    private readonly string $jar;
    /** @var resource */
    private mixed $log;

    public function __construct(private readonly string $base, private readonly string $stop, string $log)
    {
        $this->jar = (string) tempnam(sys_get_temp_dir(), 'jar');
        $this->log = fopen($log, 'a') ?: exit("No log.\n");
    }

    public function __destruct()
    {
        @unlink($this->jar);
    }

    public function work(int $number): void
    {
        $this->signIn();
        for ($turn = 1; !file_exists($this->stop); ++$turn) {
            // Of this run, this person, this turn.
            $mark = sprintf('%sW%dT%d', substr(md5($this->stop), 0, 5), $number, $turn);
            $wish = ['words' => 'wish '.$mark, 'quantity' => '1'];
            $this->press('wish', $mark, '/requisitions', '/requisitions', $wish);
            $order = $this->begin($mark);
            if (null !== $order && $this->send($order)) {
                $this->countIn($order, $mark);
            }
        }
    }

    private function begin(string $mark): ?string
    {
        $wanted = ['supplier' => 'LUMEN', 'item' => 'BOT-500S'];
        $where = $this->press('order', $mark, '/orders/new', '/orders/new', $wanted);

        return 1 === preg_match('#/orders/(PO-\d+)#', $where ?? '', $found) ? $found[1] : null;
    }

    private function send(string $order): bool
    {
        $page = $this->page('/orders/'.$order);
        $fields = $this->fields($page, 'id="order"');
        if ([] === $fields) {
            return false;
        }
        $fields = ['email' => 'orders@lumenfold.example', 'do' => 'send'] + $fields;

        return null !== $this->press('send', $order, '/orders/'.$order, '/orders/'.$order, $fields);
    }

    private function countIn(string $order, string $mark): void
    {
        $page = $this->page('/dock?order='.$order);
        if (1 !== preg_match('/name="orders\[(\d+)\]"\s+value="1"\s+checked/', $page, $id)) {
            return;
        }
        $delivery = $this->press('delivery', $mark, '/dock', '/dock/deliveries', [
            'orders['.$id[1].']' => '1', 'order' => $order, 'site' => '1', 'note' => 'DN-'.$mark,
        ]);
        $delivery = (string) parse_url($delivery ?? '', \PHP_URL_PATH);
        if (1 === preg_match('#^/dock/deliveries/\d+$#', $delivery)) {
            $this->press('count', $mark, $delivery, $delivery, ['do' => 'all']);
            $this->press('book', $mark, $delivery, $delivery, ['do' => 'book']);
        }
    }

    /**
     * @param array<string, string> $fields
     *
     * @return string|null where it led; null if it was said not to be done
     */
    private function press(string $act, string $mark, string $page, string $to, array $fields): ?string
    {
        $press = bin2hex(random_bytes(16));
        for ($try = 0; $try < self::PATIENCE; ++$try) {
            $token = $this->token($this->page($page));
            [$status, $where, $words] = $this->ask($to, ['_token' => $token, '_press' => $press] + $fields);
            $isSignIn = str_contains($where, '/sign-in');
            if ($isSignIn) {
                $this->signIn();
                continue;
            }
            $said = match (true) {
                // Answered with what the first press did: whether all of it shows where it leads.
                303 === $status => 'before',
                $status >= 300 && $status < 400 => 'done',
                str_contains($words, 'was done before that') => 'done',
                str_contains($words, 'Nothing was changed') => 'not',
                // What the page asks a person to do.
                str_contains($words, 'go back and press again') => 'unknown',
                str_contains($words, 'reload it, and try again') => 'unknown',
                in_array($status, [400, 403, 404, 409, 422], true) => 'refused',
                default => 'unknown',
            };
            if ('unknown' !== $said) {
                $this->note($act, $mark, $said, $status, $where, 'refused' === $said ? strip_tags($words) : '');
            }
            if ('done' === $said || 'before' === $said) {
                return $where;
            }
            if ('refused' === $said) {
                return null;
            }
            usleep(200_000);
        }
        $this->note($act, $mark, 'gave up', 0, '', '');

        return null;
    }

    private function note(string $act, string $mark, string $said, int $status, string $where, string $words): void
    {
        $words = mb_substr(trim((string) preg_replace('/\s+/', ' ', $words)), 0, 300);
        fwrite($this->log, json_encode(compact('act', 'mark', 'said', 'status', 'where', 'words'))."\n");
    }

    private function signIn(): void
    {
        while (!file_exists($this->stop)) {
            [$status, $where] = $this->ask('/sign-in', [
                '_token' => 'csrf-token', 'email' => 'rowan@larkmoor.example', 'password' => 'larkmoor-honey',
            ]);
            if (302 === $status && !str_contains($where, '/sign-in')) {
                return;
            }
            usleep(300_000);
        }
    }

    private function page(string $path): string
    {
        for ($try = 0; $try < self::PATIENCE; ++$try) {
            [$status, $where, $page] = $this->ask($path);
            if (200 === $status) {
                return $page;
            }
            if (str_contains($where, '/sign-in')) {
                $this->signIn();
            }
            usleep(200_000);
        }

        return '';
    }

    private function token(string $page): string
    {
        return 1 === preg_match('/name="csrf-token" content="([^"]+)"/', $page, $found) ? $found[1] : '';
    }

    /** @return array<string, string> of the form that has this in its tag */
    private function fields(string $page, string $form): array
    {
        $document = new DOMDocument();
        if ('' === $page || !@$document->loadHTML($page)) {
            return [];
        }
        $fields = [];
        foreach ($document->getElementsByTagName('*') as $element) {
            $name = $element->getAttribute('name');
            $isOurs = 'order' === $element->getAttribute('form');
            for ($parent = $element->parentNode; $parent instanceof DOMElement; $parent = $parent->parentNode) {
                $isOurs = $isOurs || 'order' === $parent->getAttribute('id');
            }
            if ('' === $name || '_token' === $name || !$isOurs || !str_contains($form, 'order')) {
                continue;
            }
            $type = $element->getAttribute('type');
            if ('input' === $element->tagName && (!in_array($type, ['checkbox', 'radio', 'file', 'submit'], true)
                || $element->hasAttribute('checked'))) {
                $fields[$name] = $element->getAttribute('value');
            } elseif ('textarea' === $element->tagName) {
                $fields[$name] = $element->textContent;
            } elseif ('select' === $element->tagName) {
                foreach ($element->getElementsByTagName('option') as $option) {
                    if (!isset($fields[$name]) || $option->hasAttribute('selected')) {
                        $fields[$name] = $option->getAttribute('value');
                    }
                }
            }
        }

        return $fields;
    }

    /**
     * @param array<string, string>|null $fields
     *
     * @return array{int, string, string} status, where it leads, the page
     */
    private function ask(string $path, ?array $fields = null): array
    {
        $curl = curl_init(str_starts_with($path, 'http') ? $path : $this->base.$path);
        curl_setopt_array($curl, [
            \CURLOPT_RETURNTRANSFER => true,
            \CURLOPT_COOKIEFILE => $this->jar,
            \CURLOPT_COOKIEJAR => $this->jar,
            \CURLOPT_TIMEOUT => 20,
            \CURLOPT_HTTPHEADER => ['Sec-Fetch-Site: same-origin'],
        ] + (null === $fields ? [] : [\CURLOPT_POSTFIELDS => http_build_query($fields)]));
        $page = (string) curl_exec($curl);
        $answer = [
            (int) curl_getinfo($curl, \CURLINFO_RESPONSE_CODE),
            (string) curl_getinfo($curl, \CURLINFO_REDIRECT_URL),
            $page,
        ];
        curl_close($curl);

        return $answer;
    }
}

(new FaultsClient($argv[1], $argv[2], $argv[3]))->work((int) $argv[4]);
