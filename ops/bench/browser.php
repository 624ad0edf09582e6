<?php

declare(strict_types=1);

// A browser for measures in one.

use LucidStep\Tests\Support\Tester;

/**
 * @return array{resource, int} the driver, to be ended, and its port
 */
function driver(): array
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

    return [$driver, $port];
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
