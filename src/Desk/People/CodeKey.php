<?php

declare(strict_types=1);

namespace TallBarrel\Desk\People;

/** The key of one-time codes as it is taken over by another device: to scan, or in groups of four letters to type. */
final readonly class CodeKey
{
    private function __construct(
        public string $secret,
        public string $letters,
        public string $path,
        public int $size,
    ) {
    }

    public static function of(string $issuer, string $account, string $secret): self
    {
        $address = sprintf(
            'otpauth://totp/%s?secret=%s&issuer=%s',
            rawurlencode($issuer.':'.$account),
            $secret,
            rawurlencode($issuer),
        );
        $code = (new \TCPDF2DBarcode($address, 'QRCODE,M'))->getBarcodeArray();
        $path = '';
        foreach (is_array($code['bcode'] ?? null) ? array_values($code['bcode']) : [] as $y => $row) {
            foreach (is_array($row) ? array_values($row) : [] as $x => $dark) {
                if (is_scalar($dark) && '1' === (string) $dark) {
                    $path .= sprintf('M%d %dh1v1h-1z', $x, $y);
                }
            }
        }

        return new self(
            $secret,
            implode(' ', str_split($secret, 4)),
            $path,
            is_numeric($code['num_rows'] ?? null) ? (int) $code['num_rows'] : 0,
        );
    }
}
