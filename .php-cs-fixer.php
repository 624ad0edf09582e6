<?php

declare(strict_types=1);

// What prettier does not do for PHP: imports, casing and idioms. The layout of lines is prettier's.
$finder = (new PhpCsFixer\Finder())
    ->in(__DIR__)
    ->exclude(['node_modules', 'vendor', 'public', 'storage', 'var', 'bootstrap/cache', 'resources/views'])
    ->notPath('#packages/[^/]+/vendor#')
    ->ignoreDotFiles(false);

return (new PhpCsFixer\Config())
    ->setRiskyAllowed(false)
    ->setCacheFile(__DIR__ . '/var/php-cs-fixer.cache')
    ->setRules([
        'array_syntax' => ['syntax' => 'short'],
        'lowercase_cast' => true,
        'native_function_casing' => true,
        'no_empty_comment' => true,
        'no_empty_phpdoc' => true,
        'no_empty_statement' => true,
        'no_leading_import_slash' => true,
        'no_superfluous_elseif' => true,
        'no_trailing_whitespace_in_comment' => true,
        'no_unused_imports' => true,
        'no_useless_else' => true,
        'no_useless_return' => true,
        'ordered_imports' => ['sort_algorithm' => 'alpha'],
        'phpdoc_no_empty_return' => true,
        'phpdoc_order' => true,
        'phpdoc_trim' => true,
        'single_quote' => true,
        'visibility_required' => true,
    ])
    ->setFinder($finder);
