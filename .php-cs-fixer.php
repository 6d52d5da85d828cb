<?php

declare(strict_types=1);

return (new PhpCsFixer\Config())
    ->setRiskyAllowed(true)
    ->setUnsupportedPhpVersionAllowed(true)
    ->setRules([
        '@Symfony' => true,
        'declare_strict_types' => true,
        'concat_space' => ['spacing' => 'none'],
        'native_function_invocation' => false,
        'phpdoc_to_comment' => false,
        'single_line_throw' => false,
        'phpdoc_align' => false,
        'phpdoc_separation' => false,
        'phpdoc_summary' => false,
        'global_namespace_import' => false,
        'nullable_type_declaration_for_default_null_value' => true,
        'ordered_imports' => ['sort_algorithm' => 'alpha'],
        'no_unused_imports' => true,
        'blank_line_before_statement' => ['statements' => ['return']],
    ])
    ->setCacheFile(__DIR__.'/var/php-cs-fixer.cache')
    ->setFinder(
        (new PhpCsFixer\Finder())
            ->in([
                __DIR__.'/src',
                __DIR__.'/tests',
                __DIR__.'/config',
                __DIR__.'/public',
                __DIR__.'/migrations',
                __DIR__.'/build',
            ])
            ->exclude('symfony')
            ->append([__DIR__.'/bin/console', __FILE__]),
    );
