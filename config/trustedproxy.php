<?php

return [
    // Who may say for whom a request is: nginx on this node, and what stands before it (LUCID_TRUSTED_PROXIES, by comma).
    'proxies' => ['127.0.0.1', '::1', ...array_filter(explode(',', (string) env('LUCID_TRUSTED_PROXIES', '')))],
];
