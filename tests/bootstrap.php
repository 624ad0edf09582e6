<?php

declare(strict_types=1);

require __DIR__ . '/../vendor/autoload.php';

$database = (string) getenv('DB_DATABASE');
if ($database !== '' && !str_ends_with($database, '_test')) {
    fwrite(STDERR, "The tests empty their database, and \"{$database}\" is not named *_test.\n");
    exit(1);
}
