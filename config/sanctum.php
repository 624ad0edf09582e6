<?php

$url = parse_url((string) env('APP_URL', 'http://127.0.0.1:8088'));
$port = isset($url['port']) ? ':' . $url['port'] : '';

return [
    'stateful' => array_values(
        array_unique(
            array_filter([
                ($url['host'] ?? 'localhost') . $port,
                'localhost' . $port,
                '127.0.0.1' . $port,
                ...explode(',', (string) env('SANCTUM_STATEFUL_DOMAINS', '')),
            ]),
        ),
    ),
    'guard' => ['web'],
    'expiration' => null,
    'token_prefix' => 'ls_',
    'middleware' => [
        'authenticate_session' => Laravel\Sanctum\Http\Middleware\AuthenticateSession::class,
        'encrypt_cookies' => Illuminate\Cookie\Middleware\EncryptCookies::class,
        'validate_csrf_token' => Illuminate\Foundation\Http\Middleware\ValidateCsrfToken::class,
    ],
];
