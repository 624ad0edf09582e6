<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Jobs;

use Illuminate\Contracts\Queue\ShouldBeEncrypted;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\Mail;
use LucidStep\App\Areas\Mail\PlainMail;
use LucidStep\App\Areas\People\Actions\OneTimeLinks;
use LucidStep\App\Models\LinkPurpose;
use LucidStep\App\Models\User;

/**
 * Sends whoever forgot their password an address at which to set another. Whether somebody has this address is looked up here,
 * where nobody waits: so neither the answer nor its time tells.
 */
final class SendPasswordLink implements ShouldBeEncrypted, ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public int $timeout = 30;

    /** @var list<int> seconds */
    public array $backoff = [30, 120];

    public function __construct(private readonly string $email) {}

    public function handle(): void
    {
        $user = User::query()->where('email', $this->email)->first();
        if (null === $user) {
            return;
        }
        $address = OneTimeLinks::make(LinkPurpose::Password, $user);
        $minutes = OneTimeLinks::MINUTES;
        Mail::to($user->email)->send(
            new PlainMail(
                'Another password for Lucid Step',
                "{$user->name}, somebody asked for another password for your account, we hope you.\n\n" .
                    "Set it within {$minutes} minutes:\n{$address}\n\nOtherwise delete this mail: your password stays as it is.",
            ),
        );
    }
}
