<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use Symfony\Component\HttpFoundation\File\UploadedFile;

/** The small changes that a page sends by itself bring no key along: setting the same twice is setting it once. */
final class SetTwiceTest extends DeskTestCase
{
    private const TOUCHED = [
        'proposal', 'delivery', 'delivery_attachment', 'own_value', 'price_list_row', 'audit_entry',
    ];

    public function testWhatIsSetTwiceStandsAsIfItWereSetOnce(): void
    {
        $this->as('rowan');
        $proposal = (int) $this->number('SELECT MIN(id) FROM proposal WHERE listed = 1 AND chosen = 0 AND packs > 0');
        $delivery = (int) $this->number('SELECT MAX(id) FROM delivery');
        $this->post('/settings/fields', ['thing' => 'delivery', 'kind' => 'text', 'label' => 'Gate', 'choices' => '']);
        $gate = (int) $this->number("SELECT id FROM own_field WHERE label = 'Gate'");
        $list = $this->bringPriceList();
        $row = (int) $this->number("SELECT MAX(id) FROM price_list_row WHERE code = 'VG-0110-H'");
        $came = "/dock/deliveries/$delivery/came";
        foreach ([
            ["/reorder/$proposal", ['quantity' => [$proposal => '7'], 'chosen' => [$proposal => '1']]],
            ['/reorder/group/VETRASOL?all=0', []],
            [$came, ['carrier' => 'Brackenhaul', 'pallets' => '2'], $this->picture()],
            ["/own/delivery/$delivery", ['own' => [$gate => 'north']]],
            [$list.'/chosen', ['show' => 'fall', 'shown' => [$row => '1']]],
        ] as $change) {
            $this->setTwice(...$change);
        }
        $kept = (int) $this->number('SELECT MAX(id) FROM delivery_attachment');
        $this->setTwice("/dock/deliveries/$delivery/attachments/$kept/remove", []);
    }

    /**
     * @param array<string, mixed> $fields
     * @param string|null          $file   where one is sent along
     */
    private function setTwice(string $path, array $fields, ?string $file = null): void
    {
        $stands = [$this->kept()];
        for ($turn = 1; $turn <= 2; ++$turn) {
            $token = $this->see('/')->filter('meta[name="csrf-token"]')->attr('content');
            $files = null === $file
                ? []
                : ['file' => new UploadedFile($file, 'seal.png', 'image/png', null, true)];
            $sent = ['_token' => $token] + $fields;
            $this->browser->request('POST', $path, $sent, $files, ['HTTP_HX-Request' => 'true']);
            self::assertResponseIsSuccessful($path);
            $stands[] = $this->kept();
        }
        self::assertNotSame($stands[0], $stands[1], $path.' does something');
        self::assertSame($stands[1], $stands[2], $path);
    }

    /** @return array<string, string> a sum over what stands there, by table */
    private function kept(): array
    {
        /** @var array<string, string> $sums */
        $sums = $this->connection()->fetchAllKeyValue('CHECKSUM TABLE '.implode(', ', self::TOUCHED));

        return $sums;
    }

    private function picture(): string
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'seal');
        imagepng(imagecreatetruecolor(40, 30), $file);

        return $file;
    }

    /** @return string where it stands */
    private function bringPriceList(): string
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'list');
        file_put_contents($file, "code,prices\nVG-0110-H,5.50\n");
        $token = $this->see('/')->filter('meta[name="csrf-token"]')->attr('content');
        $this->browser->request('POST', '/suppliers/VETRASOL/prices', ['_token' => $token], [
            'file' => new UploadedFile($file, 'list.csv', 'text/csv', null, true),
        ]);
        $this->browser->followRedirect();

        return (string) parse_url($this->browser->getRequest()->getUri(), \PHP_URL_PATH);
    }
}
