<?php

return [
    'default' => env('LOG_CHANNEL', 'single'),
    'channels' => [
        'single' => [
            'driver' => 'single',
            'path' => env('LUCID_LOG', storage_path('logs/laravel.log')),
            'level' => env('LOG_LEVEL', 'info'),
            'replace_placeholders' => true,
        ],
        // Who signed in, what was refused, which rights and settings were changed: apart, so that it can be kept and read apart.
        'security' => [
            'driver' => 'daily',
            'path' => env('LUCID_SECURITY_LOG', dirname((string) env('LUCID_LOG', storage_path('logs/laravel.log'))) . '/security.log'),
            'days' => 90,
            'level' => 'info',
            'formatter' => Monolog\Formatter\JsonFormatter::class,
        ],
        'stderr' => [
            'driver' => 'monolog',
            'handler' => Monolog\Handler\StreamHandler::class,
            'with' => ['stream' => 'php://stderr'],
            'level' => 'info',
        ],
        'null' => ['driver' => 'monolog', 'handler' => Monolog\Handler\NullHandler::class],
    ],
];
