<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Actions;

use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Support\Facades\Mail;
use Illuminate\Support\Str;
use League\Flysystem\FilesystemException;
use LucidStep\App\Areas\Mail\PlainMail;
use LucidStep\App\Areas\People\Data\ServiceTest;
use LucidStep\App\Models\User;
use Symfony\Component\Mailer\Exception\TransportExceptionInterface;

/**
 * Tries what the installation depends on, and says what came of it.
 */
final readonly class TryServices
{
    private const LONGEST = 400;

    public function __construct(private Filesystem $files) {}

    /**
     * Sends a mail to whoever asks, now and not in the background.
     */
    public function mail(User $to): ServiceTest
    {
        return self::timed(static function () use ($to): string {
            Mail::to($to->email)->send(
                new PlainMail('A test from Lucid Step', "{$to->name}, you asked for this mail: sending works.\n\n" . url('/installation')),
            );

            return "Handed over, to {$to->email}. Look whether it arrives.";
        });
    }

    /**
     * Writes a file, reads it back and takes it away.
     */
    public function storage(): ServiceTest
    {
        return self::timed(function (): string {
            $path = 'tests/' . Str::uuid7();
            $content = random_bytes(4096);
            try {
                if (!$this->files->put($path, $content)) {
                    throw new \RuntimeException('A file could not be written.');
                }
                if ($this->files->get($path) !== $content) {
                    throw new \RuntimeException('What was read back is not what was written.');
                }
            } finally {
                $this->files->delete($path);
            }

            return 'Wrote a file, read it back and took it away.';
        });
    }

    /**
     * @param  \Closure(): string  $work
     */
    private static function timed(\Closure $work): ServiceTest
    {
        $began = hrtime(true);
        try {
            [$works, $words] = [true, $work()];
        } catch (TransportExceptionInterface | FilesystemException | \RuntimeException $e) {
            [$works, $words] = [false, mb_strimwidth($e->getMessage(), 0, self::LONGEST, '…')];
        }

        return new ServiceTest($works, $words, intdiv(hrtime(true) - $began, 1_000_000));
    }
}
