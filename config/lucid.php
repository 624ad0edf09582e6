<?php

return [
    // Demo mode offers the demo's sign-ins on the sign-in page. Never on where real people work.
    'demo' => (bool) env('LUCID_DEMO', false),
    'demo_password' => (string) env('LUCID_DEMO_PASSWORD', ''),
    // Where the demo's practice page lies: an origin of its own, such as http://127.0.0.1:8089. Empty: none.
    'practice_url' => (string) env('PRACTICE_URL', ''),
    // Further names under which the application answers, beside that of APP_URL.
    'hosts' => array_values(array_filter(explode(',', (string) env('LUCID_HOSTS', '')))),
    // Hosts within the network that may be called for people, each with its port, such as 127.0.0.1:8089; those outside always may.
    // The small tracker of the demo is one.
    'outside_hosts' => array_values(
        array_filter([
            ...array_map(trim(...), explode(',', (string) env('LUCID_OUTSIDE_HOSTS', ''))),
            env('LUCID_DEMO', false) ? (string) preg_replace('#^https?://([^/]+).*$#', '$1', (string) env('PRACTICE_URL', '')) : '',
        ]),
    ),
    'evidence' => [
        // Largest file, in bytes, and largest picture, in pixels, that a step takes.
        'max_bytes' => (int) env('LUCID_EVIDENCE_MAX_BYTES', 25 * 1024 * 1024),
        'max_pixels' => (int) env('LUCID_EVIDENCE_MAX_PIXELS', 60_000_000),
        // Longest side of a picture, in pixels, and largest recording, in bytes.
        'max_side' => 16_384,
        'max_recording_bytes' => (int) env('LUCID_RECORDING_MAX_BYTES', 100 * 1024 * 1024),
        'thumbnail_width' => 480,
    ],
    // Where the key lies that signs records, and the public ones before it: outside the database, and in every backup.
    'keys' => (string) env('LUCID_KEYS', storage_path('keys')),
    // After how many days a program's token ends at the latest.
    'token_days' => (int) env('LUCID_TOKEN_DAYS', 180),
    // A reverse proxy that signs people in: from which addresses it asks (several by comma, with ranges such as 10.0.0.0/8), and in
    // which header it names the mail address. Off without addresses.
    'proxy' => [
        'addresses' => array_values(array_filter(array_map(trim(...), explode(',', (string) env('LUCID_PROXY_ADDRESSES', ''))))),
        'header' => (string) env('LUCID_PROXY_HEADER', 'X-Remote-User'),
    ],
    // Only while a bench runs: a bare route to compare with.
    'bench' => (bool) env('LUCID_BENCH', false),
    // How often in a minute a person writes, or asks for what is costly, and how often all at one address write. An outbox that
    // was away for a day sends some hundred things at once.
    'limits' => [
        'writes' => (int) env('LUCID_WRITES_PER_MINUTE', 1200),
        'writes_of_address' => (int) env('LUCID_WRITES_PER_MINUTE_AND_ADDRESS', 12_000),
        'costly' => (int) env('LUCID_COSTLY_PER_MINUTE', 60),
    ],
    // For how many seconds coverage is told as it was, while things change; 0: it is always read anew.
    'coverage' => [
        'hold_seconds' => (int) env('LUCID_COVERAGE_HOLD_SECONDS', 3),
        // A request for what was proven day by day counts for so long; the next one goes on.
        'count_seconds' => (float) env('LUCID_COVERAGE_COUNT_SECONDS', 0.7),
    ],
    'import' => ['max_bytes' => 20 * 1024 * 1024],
];
