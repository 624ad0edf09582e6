<?php

declare(strict_types=1);

// Which files requests read, for preload.txt. `LUCID_PRELOAD_RECORD=yes ./lucid bench <name>` sets this before each request, where
// it notes them; afterwards `php ops/preload-record.php FOLDER` keeps those that a quarter of the requests read.
if (\PHP_SAPI !== 'cli') {
    register_shutdown_function(static function (string $folder): void {
        is_dir($folder) || mkdir($folder);
        file_put_contents("{$folder}/" . getmypid() . '.txt', implode("\n", get_included_files()) . "\n\n", \FILE_APPEND);
    }, getenv('LARAVEL_STORAGE_PATH') . '/preload');

    return;
}
$root = dirname(__DIR__) . '/';
$requests = array_filter(explode("\n\n", implode('', array_map('file_get_contents', glob("{$argv[1]}/*.txt") ?: []))));
$times = array_count_values(explode("\n", implode("\n", $requests)));
$not = 'composer/auto|nunomaduro|phpunit|fakerphp|mockery|php-webdriver|sebastian';
$ours = '#^' . preg_quote($root) . "(app|core|packages|vendor/(?!{$not}))(?!.*/Testing/).*/[A-Z]\\w*\\.php\$#";
$often = array_filter(
    $times,
    // Composer's lists, configuration and what has no class of its own name is read as before.
    static fn(int $n, string $file): bool => $n >= \count($requests) / 4 && 1 === preg_match($ours, $file),
    \ARRAY_FILTER_USE_BOTH,
);
$paths = array_map(static fn(string $file): string => substr($file, strlen($root)), array_keys($often));
sort($paths);
file_put_contents(__DIR__ . '/preload.txt', implode("\n", $paths) . "\n");
echo count($paths) . ' files of ' . count($requests) . " requests\n";
