<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Browser;

use PHPUnit\Framework\TestCase;

/** Many people press the same button at the same moment, each at a browser of their own. */
final class AllAtOnceTest extends TestCase
{
    private const PEOPLE = 10;
    private const PRESSES = 50;

    public function testADeliveryIsBookedOnceHoweverManyPressAtOnce(): void
    {
        $people = [];
        for ($n = 0; $n < self::PEOPLE; ++$n) {
            $people[] = self::signedIn();
        }
        $late = preg_match('/\?order=(PO-\d+)/', self::ask($people[0], '/dock'), $order);
        self::assertSame(1, $late, 'something is expected');
        $page = self::ask($people[0], '/dock?order='.$order[1]);
        self::assertSame(1, preg_match('/name="orders\[(\d+)\]"\s+value="1"\s+checked/', $page, $id));
        self::ask($people[0], '/dock/deliveries', [
            '_token' => self::token($page), 'orders['.$id[1].']' => '1', 'order' => $order[1], 'site' => '1',
            'note' => 'DN-CROWD',
        ]);
        $to = (string) curl_getinfo($people[0], \CURLINFO_EFFECTIVE_URL);
        self::assertMatchesRegularExpression('~/dock/deliveries/\d+$~', $to);
        $delivery = (string) parse_url($to, \PHP_URL_PATH);
        self::ask($people[0], $delivery, ['_token' => self::token(self::ask($people[0], $delivery)), 'do' => 'all']);

        $all = curl_multi_init();
        $presses = [];
        $tokens = array_map(
            static fn (\CurlHandle $one): string => self::token(self::ask($one, $delivery)),
            $people,
        );
        for ($n = 0; $n < self::PRESSES; ++$n) {
            $who = $people[$n % self::PEOPLE];
            $press = curl_copy_handle($who) ?: self::fail('no handle');
            /** @var list<non-empty-string> $cookies */
            $cookies = curl_getinfo($who, \CURLINFO_COOKIELIST);
            foreach ($cookies as $cookie) {
                curl_setopt($press, \CURLOPT_COOKIELIST, $cookie);
            }
            curl_setopt_array($press, self::options($delivery, [
                '_token' => $tokens[$n % self::PEOPLE], 'do' => 'book',
            ]));
            curl_multi_add_handle($all, $press);
            $presses[] = $press;
        }
        do {
            curl_multi_exec($all, $still);
            curl_multi_select($all, 0.1);
        } while ($still > 0);
        foreach ($presses as $press) {
            $answer = (string) curl_multi_getcontent($press);
            self::assertSame(200, curl_getinfo($press, \CURLINFO_RESPONSE_CODE), $answer);
        }
        $receipts = self::ask($people[0], '/dock/receipts?words=DN-CROWD');
        self::assertSame(1, preg_match_all('/\bR-\d+(?=<)/', $receipts), $receipts);
    }

    private static function signedIn(): \CurlHandle
    {
        $who = curl_init() ?: self::fail('no handle');
        curl_setopt($who, \CURLOPT_COOKIEFILE, '');
        $page = self::ask($who, '/sign-in');
        self::ask($who, '/sign-in', [
            '_token' => self::token($page), 'email' => 'tam@larkmoor.example', 'password' => 'larkmoor-honey',
        ]);
        $to = (string) curl_getinfo($who, \CURLINFO_EFFECTIVE_URL);
        self::assertStringNotContainsString('/sign-in', $to);

        return $who;
    }

    private static function token(string $page): string
    {
        self::assertSame(1, preg_match('/name="_token" value="([^"]+)"/', $page, $token), $page);

        return $token[1];
    }

    /**
     * @param array<string, string>|null $sent
     *
     * @return array<int, mixed>
     */
    private static function options(string $path, ?array $sent): array
    {
        return [
            \CURLOPT_URL => getenv('TALLBARREL_TEST_URL').$path,
            \CURLOPT_RETURNTRANSFER => true,
            \CURLOPT_FOLLOWLOCATION => true,
            \CURLOPT_TIMEOUT => 60,
            \CURLOPT_HTTPHEADER => ['Sec-Fetch-Site: same-origin'],
        ] + (null === $sent ? [\CURLOPT_HTTPGET => true] : [\CURLOPT_POSTFIELDS => http_build_query($sent)]);
    }

    /** @param array<string, string>|null $sent */
    private static function ask(\CurlHandle $who, string $path, ?array $sent = null): string
    {
        curl_setopt_array($who, self::options($path, $sent));
        $page = curl_exec($who);
        self::assertIsString($page, curl_error($who));

        return $page;
    }
}
