<?php

return [
    // "catcher" keeps mails in the database, where /mail shows them in the demo; "smtp" sends them.
    'default' => env('MAIL_MAILER', env('LUCID_DEMO') ? 'catcher' : 'smtp'),
    'mailers' => [
        'catcher' => ['transport' => 'catcher'],
        'array' => ['transport' => 'array'],
        'smtp' => [
            'transport' => 'smtp',
            'scheme' => env('MAIL_SCHEME'),
            'host' => env('MAIL_HOST', '127.0.0.1'),
            'port' => env('MAIL_PORT', 25),
            'username' => env('MAIL_USERNAME'),
            'password' => env('MAIL_PASSWORD'),
            'timeout' => 10,
        ],
    ],
    'from' => ['address' => env('MAIL_FROM', 'lucid-step@localhost'), 'name' => 'Lucid Step'],
];
