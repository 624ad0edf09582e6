<?php

return [
    'default' => 'pgsql',
    'connections' => [
        'pgsql' => [
            'driver' => 'pgsql',
            'url' => env('DATABASE_URL'),
            'host' => env('DB_HOST', '127.0.0.1'),
            'port' => env('DB_PORT', '5432'),
            'database' => env('DB_DATABASE', 'lucid'),
            'username' => env('DB_USERNAME', 'lucid'),
            'password' => env('DB_PASSWORD', ''),
            'charset' => 'utf8',
            'prefix' => '',
            'search_path' => 'public',
            'sslmode' => 'prefer',
            'timezone' => 'UTC',
            // Each query is asked once: prepared ones that are thrown away after their first use cost two round trips more.
            'options' => [PDO::PGSQL_ATTR_DISABLE_PREPARES => true],
        ],
    ],
    'migrations' => ['table' => 'migrations', 'update_date_on_publish' => false],
];
