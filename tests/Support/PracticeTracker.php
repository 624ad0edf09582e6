<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

use Symfony\Component\Process\Process;

/**
 * The tracker that ships, served for a test by a process of its own, with data of its own.
 */
final class PracticeTracker
{
    private function __construct(private readonly Process $process, private readonly string $folder, public readonly string $address) {}

    public static function start(): self
    {
        $folder = sys_get_temp_dir() . '/practice-tracker-' . bin2hex(random_bytes(6));
        for ($try = 0; $try < 5; $try++) {
            $port = random_int(20_000, 40_000);
            $process = new Process(
                [PHP_BINARY, '-S', "127.0.0.1:{$port}", base_path('demo/tracker/index.php')],
                base_path('demo/tracker'),
                ['TRACKER_DATA' => $folder, 'TRACKER_TOKEN' => 'a-token', 'TRACKER_LOSES' => '0'],
            );
            // What it says of each request would fill the pipe, and then it waits for somebody to read.
            $process->disableOutput();
            $process->start();
            for ($wait = 0; $wait < 100 && $process->isRunning(); $wait++) {
                if (false !== @fsockopen('127.0.0.1', $port, timeout: 0.1)) {
                    config(['lucid.outside_hosts' => ["127.0.0.1:{$port}"]]);

                    return new self($process, $folder, "http://127.0.0.1:{$port}/tracker/api");
                }
                usleep(50_000);
            }
            $process->stop(0);
        }
        throw new \RuntimeException('The tracker does not start.');
    }

    public function stop(): void
    {
        $this->process->stop(1);
        @unlink("{$this->folder}/board.json");
        @rmdir($this->folder);
    }

    /**
     * @return array<string, mixed> what it has
     */
    public function kept(): array
    {
        return (array) json_decode((string) file_get_contents("{$this->folder}/board.json"), true);
    }

    /**
     * @param  'ok'|'slow'|'down'|'refuse'|'lose'  $mode
     */
    public function set(string $mode): void
    {
        $this->press(['mode' => $mode]);
    }

    /**
     * Presses a button of its page.
     *
     * @param  array<string, string>  $fields
     */
    public function press(array $fields): void
    {
        file_get_contents(
            str_replace('/api', '/', $this->address),
            false,
            stream_context_create([
                'http' => [
                    'method' => 'POST',
                    'header' => 'Content-Type: application/x-www-form-urlencoded',
                    'content' => http_build_query($fields),
                    'follow_location' => 0,
                    'ignore_errors' => true,
                ],
            ]),
        );
    }
}
