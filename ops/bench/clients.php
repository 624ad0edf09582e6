<?php

declare(strict_types=1);

// Many clients, each with a session of its own, that ask at once.

/**
 * Requests with a token and a key of their own, so many at a time.
 *
 * @param  list<array{0: string, 1: string, 2: string, 3: string, 4: string, 5?: list<string>}>  $requests method, path, body, token, key
 *     and further headers
 *
 * @return list<float> milliseconds, sorted
 */
function together(array $requests, int $clients): array
{
    $multi = curl_multi_init();
    $took = [];
    $next = 0;
    $start = static function () use (&$next, $requests, $multi): void {
        if (isset($requests[$next])) {
            curl_multi_add_handle($multi, handle(...$requests[$next++]));
        }
    };
    for ($i = 0; $i < $clients; $i++) {
        $start();
    }
    do {
        curl_multi_exec($multi, $running);
        while (false !== ($done = curl_multi_info_read($multi))) {
            $status = curl_getinfo($done['handle'], \CURLINFO_HTTP_CODE);
            if ($status < 200 || $status >= 300) {
                throw new RuntimeException("A request was answered {$status}: " . curl_multi_getcontent($done['handle']));
            }
            $took[] = curl_getinfo($done['handle'], \CURLINFO_TOTAL_TIME) * 1000;
            curl_multi_remove_handle($multi, $done['handle']);
            $start();
            curl_multi_exec($multi, $running);
        }
        curl_multi_select($multi, 0.02);
    } while ($running > 0 || \count($took) < \count($requests));
    sort($took);

    return $took;
}

/**
 * @param  list<string>  $headers more of them
 */
function handle(string $method, string $path, string $body, string $token, string $key = '', array $headers = []): CurlHandle
{
    $handle = curl_init(getenv('LUCID_BENCH_URL') . $path);
    curl_setopt_array($handle, [
        \CURLOPT_RETURNTRANSFER => true,
        \CURLOPT_CUSTOMREQUEST => $method,
        \CURLOPT_POSTFIELDS => $body,
        \CURLOPT_TIMEOUT => 30,
        \CURLOPT_HTTPHEADER => [
            'Accept: application/json',
            'Content-Type: application/json',
            "Authorization: Bearer {$token}",
            ...'' === $key ? [] : ["Idempotency-Key: {$key}"],
            ...$headers,
        ],
    ]);

    return $handle;
}

/**
 * @return array{int, string} status, 0 when nobody answered, and body
 */
function ask(string $method, string $path, string $token, string $body, string $key = ''): array
{
    $handle = handle($method, $path, $body, $token, $key);
    $answer = curl_exec($handle);

    return [(int) curl_getinfo($handle, \CURLINFO_HTTP_CODE), (string) $answer];
}
