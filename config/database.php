<?php

// The application's own role may not change what was recorded; migrations run as the owner, of which only they are told.
$pgsql = [
    'driver' => 'pgsql',
    'url' => env('DATABASE_URL'),
    'host' => env('DB_HOST', '127.0.0.1'),
    'port' => env('DB_PORT', '5432'),
    'database' => env('DB_DATABASE', 'lucid'),
    'username' => env('DB_USERNAME', 'lucid'),
    'password' => env('DB_PASSWORD', ''),
    'charset' => 'utf8',
    'prefix' => '',
    'sslmode' => 'prefer',
    'timezone' => 'UTC',
    // Each query is asked once: prepared ones that are thrown away after their first use cost two round trips more. And whoever
    // waits is told after three seconds that the database is away.
    'options' => [PDO::PGSQL_ATTR_DISABLE_PREPARES => true, PDO::ATTR_TIMEOUT => 3],
];

return [
    'default' => 'pgsql',
    'connections' => [
        'pgsql' => $pgsql,
        'owner' => [
            ...$pgsql,
            'url' => env('DATABASE_OWNER_URL') ?: env('DATABASE_URL'),
            'username' => env('DB_OWNER_USERNAME', $pgsql['username']),
            'password' => env('DB_OWNER_PASSWORD', $pgsql['password']),
        ],
    ],
    'migrations' => ['table' => 'migrations', 'update_date_on_publish' => false],
];
