<?php

return [
    'default' => env('CACHE_STORE', 'file'),
    // How often somebody asked is counted with each write: where there is a folder in memory, no disk is waited for.
    'limiter' => env('LUCID_LIMITS_PATH') ? 'limits' : null,
    'stores' => [
        'array' => ['driver' => 'array', 'serialize' => false],
        'file' => ['driver' => 'file', 'path' => storage_path('framework/cache/data'), 'lock_path' => storage_path('framework/cache/data')],
        'limits' => ['driver' => 'file', 'path' => env('LUCID_LIMITS_PATH')],
        'redis' => ['driver' => 'redis', 'connection' => 'cache', 'lock_connection' => 'default'],
    ],
    'prefix' => 'lucid_step_',
];
