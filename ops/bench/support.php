<?php

declare(strict_types=1);

// What the benches share: a booted application, requests by several clients at once, and how results are told.

use Illuminate\Contracts\Console\Kernel;

require __DIR__ . '/../../vendor/autoload.php';
$app = require __DIR__ . '/../../bootstrap/app.php';
$app->make(Kernel::class)->bootstrap();

/**
 * Sends requests, so many at a time, and tells how long each took.
 *
 * @param  list<array{0: string, 1: string, 2?: string}>  $requests method, path, body
 *
 * @return list<float> milliseconds, sorted
 */
function requests(array $requests, string $token, int $clients = 4): array
{
    $base = (string) getenv('LUCID_BENCH_URL');
    $multi = curl_multi_init();
    $took = [];
    $next = 0;
    $start = static function () use (&$next, $requests, $base, $token, $multi): void {
        if (!isset($requests[$next])) {
            return;
        }
        [$method, $path] = $requests[$next];
        $handle = curl_init($base . $path);
        curl_setopt_array($handle, [
            \CURLOPT_RETURNTRANSFER => true,
            \CURLOPT_CUSTOMREQUEST => $method,
            \CURLOPT_HTTPHEADER => ['Accept: application/json', 'Content-Type: application/json', "Authorization: Bearer {$token}"],
            \CURLOPT_POSTFIELDS => $requests[$next][2] ?? null,
        ]);
        $next++;
        curl_multi_add_handle($multi, $handle);
    };
    for ($i = 0; $i < $clients; $i++) {
        $start();
    }
    do {
        curl_multi_exec($multi, $running);
        while (false !== ($done = curl_multi_info_read($multi))) {
            $handle = $done['handle'];
            $status = curl_getinfo($handle, \CURLINFO_HTTP_CODE);
            if ($status >= 300) {
                throw new RuntimeException("A request was answered {$status}: " . curl_multi_getcontent($handle));
            }
            $took[] = curl_getinfo($handle, \CURLINFO_TOTAL_TIME) * 1000;
            curl_multi_remove_handle($multi, $handle);
            $start();
            curl_multi_exec($multi, $running);
        }
        curl_multi_select($multi, 0.05);
    } while ($running > 0 || \count($took) < \count($requests));
    sort($took);

    return $took;
}

/**
 * @return array<string, mixed> what a route answers
 */
function answer(string $path, string $token): array
{
    $context = stream_context_create(['http' => ['header' => "Accept: application/json\r\nAuthorization: Bearer {$token}"]]);

    return json_decode((string) file_get_contents(getenv('LUCID_BENCH_URL') . $path, false, $context), true, 512, JSON_THROW_ON_ERROR);
}

/**
 * @param  list<float>  $sorted
 */
function percentile(array $sorted, float $p): float
{
    return $sorted[(int) min(\count($sorted) - 1, floor(\count($sorted) * $p))];
}

/**
 * Tells one measure. An aim is the most it may be; null: it is only told.
 */
function tell(string $name, float $value, string $unit, ?float $aim, bool $json): bool
{
    $holds = null === $aim || $value <= $aim;
    echo $json
        ? json_encode(['name' => $name, 'value' => round($value, 2), 'unit' => $unit, 'aim' => $aim, 'holds' => $holds]) . "\n"
        : sprintf("%-58s %9.1f %-6s %s\n", $name, $value, $unit, null === $aim ? '' : sprintf('aim %s %s', $aim, $holds ? '' : 'MISSED'));

    return $holds;
}

/**
 * Runs a part of a bench in a process of its own and reads what it says of its time and memory.
 *
 * @return array{seconds: float, mb: float}
 */
function part(string $script, string $memory, string ...$arguments): array
{
    exec(
        implode(' ', array_map(escapeshellarg(...), ['php', '-d', "memory_limit={$memory}", $script, ...$arguments])) . ' 2>&1',
        $lines,
        $code,
    );
    $said = json_decode((string) end($lines), true);
    if (0 !== $code || !is_array($said)) {
        throw new RuntimeException("{$arguments[0]} failed: " . implode("\n", $lines));
    }

    return $said;
}
