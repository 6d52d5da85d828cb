<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Mail;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** Links in letters: from the address that was set up, never from what a request called us. */
final readonly class Links
{
    public function __construct(
        private UrlGeneratorInterface $urls,
        #[Autowire('%env(APP_URL)%')] private string $address,
    ) {
    }

    /** @param array<string, string|int|null> $parameters */
    public function to(string $route, array $parameters): string
    {
        return rtrim($this->address, '/').$this->urls->generate($route, $parameters);
    }
}
