<?php

declare(strict_types=1);

// A browser for measures in one.

use LucidStep\Tests\Support\Tester;

/** With which server it is measured, in this order. */
const SERVERS = ['a quick server', 'a server that takes 3 s', 'no server'];

/**
 * Measures in browsers, and ends with what came of it.
 *
 * @param  \Closure(int): bool  $in with the port of the driver; whether every aim was met
 */
function measure(Closure $in): never
{
    $socket = stream_socket_server('tcp://127.0.0.1:0') ?: throw new RuntimeException('No free port.');
    $port = (int) substr((string) strrchr((string) stream_socket_get_name($socket, false), ':'), 1);
    fclose($socket);
    $driver =
        proc_open(
            ['chromedriver', "--port={$port}"],
            [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['file', '/dev/null', 'w']],
            $pipes,
        ) ?:
        throw new RuntimeException('chromedriver does not start.');
    sleep(1);
    $ok = false;
    try {
        $ok = $in($port);
    } catch (Throwable $e) {
        fwrite(\STDERR, substr($e->getMessage(), 0, 600) . "\n");
    } finally {
        exec('./lucid stack bench nginx-start');
        proc_terminate($driver);
        proc_close($driver);
    }
    exit($ok ? 0 : 1);
}

/**
 * @param  int  $which of {@see SERVERS}
 */
function server(Tester $me, int $which): void
{
    if (1 === $which) {
        latency($me, 3000);
    } elseif (2 === $which) {
        latency($me, 0);
        exec('./lucid stack bench nginx-stop');
    }
}

/**
 * @param  int  $ms that every answer takes longer
 */
function latency(Tester $me, int $ms): void
{
    $me->tell('Network.enable');
    $me->tell('Network.emulateNetworkConditions', [
        'offline' => false,
        'latency' => $ms,
        'downloadThroughput' => -1,
        'uploadThroughput' => -1,
    ]);
}

function sign(Tester $me): Tester
{
    $me->open('/sign-in');
    usleep(800_000);
    if (!str_starts_with($me->path(), '/sign-in')) {
        return $me;
    }
    $me->waitFor('#email');
    $me->type('#email', 'bench@bench.test')->type('#password', 'a bench password')->press("\xEE\x80\x87")->waitFor('header nav');

    return $me;
}
