<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Jobs;

use Illuminate\Contracts\Queue\ShouldBeEncrypted;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\Mail;
use LucidStep\App\Areas\Mail\PlainMail;
use LucidStep\App\Models\User;

/**
 * Tells somebody by mail that they signed in at a device that they were never seen at.
 */
final class TellOfNewDevice implements ShouldBeEncrypted, ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public int $timeout = 30;

    /** @var list<int> seconds */
    public array $backoff = [30, 120];

    /**
     * @param  string  $device such as "Firefox on Windows"
     * @param  string  $address of the network it came from
     */
    public function __construct(
        private readonly string $user,
        private readonly string $device,
        private readonly string $address,
        private readonly Carbon $at,
    ) {}

    public function handle(): void
    {
        $user = User::query()->find($this->user);
        if (null === $user) {
            return;
        }
        $zone = $user->chosen()->timeZone ?? 'UTC';
        $when = $this->at->setTimezone($zone)->format('Y-m-d H:i') . " {$zone}";
        Mail::to($user->email)->send(
            new PlainMail(
                'Signed in at another device',
                "{$user->name}, you signed in at a device that we had not seen you at before:\n\n" .
                    "{$this->device}, from {$this->address}, {$when}\n\n" .
                    "If it was not you, choose another password and end the sessions that you do not know:\n" .
                    url('/account'),
            ),
        );
    }
}
