<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\KernelBrowser;
use Symfony\Bundle\FrameworkBundle\Test\WebTestCase;
use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\Messenger\Event\WorkerRunningEvent;
use Symfony\Component\Messenger\MessageBus;
use Symfony\Component\Messenger\Worker;
use TallBarrel\Exchange\Queue\WhileIdle;
use TallBarrel\Store\Person\Person;

/** Through the kernel, signed in, against the demo; what a test writes is rolled back. */
abstract class DeskTestCase extends WebTestCase
{
    protected KernelBrowser $browser;

    protected function setUp(): void
    {
        $this->browser = self::createClient();
        // Letters lie in files, which no transaction takes back.
        $instance = self::getContainer()->getParameter('instance_dir');
        array_map(unlink(...), glob((is_string($instance) ? $instance : '').'/mail/*.*') ?: []);
    }

    protected function as(string $name): void
    {
        $person = $this->entities()
            ->getRepository(Person::class)
            ->findOneBy(['email' => $name.'@larkmoor.example']);
        self::assertNotNull($person);
        $this->browser->loginUser($person, 'desk');
    }

    protected function see(string $path): Crawler
    {
        return $this->browser->request('GET', $path);
    }

    /**
     * @param array<string, mixed>  $fields
     * @param array<string, string> $headers
     */
    protected function post(string $path, array $fields = [], array $headers = []): Crawler
    {
        $token = $this->browser->request('GET', '/')->filter('meta[name="csrf-token"]')->attr('content');

        return $this->browser->request('POST', $path, ['_token' => $token] + $fields, [], $headers);
    }

    /** Asked for a sign-in, with the way back to a page. */
    protected function mustSignIn(): void
    {
        self::assertResponseRedirects();
        self::assertMatchesRegularExpression(
            '#^/sign-in(\?to=/|$)#',
            (string) $this->browser->getResponse()->headers->get('Location'),
        );
    }

    /** What a worker does between messages. */
    protected function work(): void
    {
        $idle = self::getContainer()->get(WhileIdle::class);
        self::assertInstanceOf(WhileIdle::class, $idle);
        $idle->look(new WorkerRunningEvent(new Worker([], new MessageBus()), false));
    }

    protected function text(): string
    {
        return (string) preg_replace('/\s+/', ' ', $this->browser->getCrawler()->filter('body')->text());
    }

    protected function entities(): EntityManagerInterface
    {
        $entities = self::getContainer()->get(EntityManagerInterface::class);
        self::assertInstanceOf(EntityManagerInterface::class, $entities);

        return $entities;
    }

    protected function connection(): Connection
    {
        return $this->entities()->getConnection();
    }

    /** Brings a file of one's own data; what is answered is a redirect to its check, unless it is refused. */
    protected function bringOwnData(string $kind, string $content): string
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'csv');
        file_put_contents($file, $content);
        $token = $this->see('/own-data')->filter('meta[name="csrf-token"]')->attr('content');
        $this->browser->request(
            'POST',
            '/own-data/'.$kind,
            ['_token' => $token],
            ['file' => new UploadedFile($file, 'mine.csv', 'text/csv', null, true)],
        );

        return (string) $this->browser->getResponse()->headers->get('Location');
    }

    /** What the database answers, as text; empty where it is nothing. */
    protected function value(string $query, mixed ...$values): string
    {
        $value = $this->connection()->fetchOne($query, array_values($values));

        return is_scalar($value) ? (string) $value : '';
    }

    /** @param list<mixed> $values */
    protected function number(string $query, array $values = []): float
    {
        $number = $this->connection()->fetchOne($query, $values);

        return is_numeric($number) ? (float) $number : self::fail('No number: '.$query);
    }
}
