<?php

declare(strict_types=1);

/** Somebody signed in who asks pages of an instance and times the answers. */
final class BenchClient
{
    private readonly string $jar;
    public readonly string $token;

    public function __construct(private readonly string $base)
    {
        $this->jar = (string) tempnam(sys_get_temp_dir(), 'jar');
        preg_match('/name="_token" value="([^"]+)"/', $this->ask('/sign-in')[0], $token) || exit("No sign-in page.\n");
        preg_match(
            '/name="csrf-token" content="([^"]+)"/',
            $this->ask('/sign-in', [
                'email' => 'rowan@larkmoor.example',
                'password' => 'larkmoor-honey',
                '_token' => $token[1],
            ])[0],
            $token,
        ) || exit("Signing in failed.\n");
        $this->token = $token[1];
    }

    public function __destruct()
    {
        unlink($this->jar);
    }

    /**
     * @param array<string, mixed>|null $post    values, or files as CURLFile
     * @param list<string>              $headers
     *
     * @return array{string, float, string} body, milliseconds, address it ended at
     */
    public function ask(string $path, ?array $post = null, array $headers = []): array
    {
        $curl = curl_init($this->base.$path);
        $files = [] !== array_filter($post ?? [], static fn (mixed $value): bool => $value instanceof CURLFile);
        curl_setopt_array(
            $curl,
            [
                \CURLOPT_RETURNTRANSFER => true,
                \CURLOPT_COOKIEFILE => $this->jar,
                \CURLOPT_COOKIEJAR => $this->jar,
                \CURLOPT_FOLLOWLOCATION => true,
                \CURLOPT_ENCODING => '',
                \CURLOPT_HTTPHEADER => ['Sec-Fetch-Site: same-origin', ...$headers],
            ] +
                (null === $post
                    ? []
                    : [\CURLOPT_POST => true, \CURLOPT_POSTFIELDS => $files ? $post : http_build_query($post)]),
        );
        $body = (string) curl_exec($curl);
        $code = curl_getinfo($curl, \CURLINFO_RESPONSE_CODE);
        200 === $code || exit("$path was answered with $code.\n".substr($body, 0, 300)."\n");
        $ended = curl_getinfo($curl, \CURLINFO_EFFECTIVE_URL);

        return [
            $body,
            1000 * curl_getinfo($curl, \CURLINFO_TOTAL_TIME),
            (string) parse_url(is_string($ended) ? $ended : '', \PHP_URL_PATH),
        ];
    }
}
