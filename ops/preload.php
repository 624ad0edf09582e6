<?php

declare(strict_types=1);

// Classes that most requests use are read once, when php-fpm starts (opcache.preload). Which ones stands in preload.txt, measured
// by `LUCID_PRELOAD_RECORD=yes ./lucid bench walk`; all of the framework would be slower than none, since each request pays for
// each class that is there. What is not there any more, because a package changed, is left out.
foreach (file(__DIR__ . '/preload.txt', \FILE_IGNORE_NEW_LINES) ?: [] as $path) {
    $file = dirname(__DIR__) . "/{$path}";
    if (is_file($file)) {
        opcache_compile_file($file);
    }
}
