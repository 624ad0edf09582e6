<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Jobs;

use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\Mail;
use LucidStep\App\Areas\Mail\PlainMail;
use LucidStep\App\Areas\People\Queries\InvitationLinks;
use LucidStep\App\Models\Invitation;
use Symfony\Component\Mailer\Exception\TransportExceptionInterface;

/**
 * Sends an invitation by mail. That it could not be sent stands beside the invitation; it is tried again twice by itself.
 */
final class SendInvitation implements ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public int $timeout = 30;

    /** @var list<int> seconds */
    public array $backoff = [60, 600];

    public function __construct(private readonly string $invitation) {}

    public function handle(): void
    {
        $found = Invitation::open()->with('project', 'inviter')->find($this->invitation);
        if (null === $found) {
            return;
        }
        [$days, $address] = [Invitation::DAYS, InvitationLinks::address($found)];
        $text =
            "{$found->inviter->name} asks you to join {$found->project->name} on Lucid Step, as {$found->role->value}.\n\n" .
            "Join within {$days} days:\n{$address}\n\n" .
            'If you do not know what this is about, delete this mail: nothing happens without you.';
        try {
            Mail::to($found->email)->send(new PlainMail("{$found->inviter->name} invites you to {$found->project->name}", $text));
        } catch (TransportExceptionInterface $e) {
            $found->update(['failure' => mb_strimwidth($e->getMessage(), 0, 300, '…'), 'sent_at' => null]);
            throw $e;
        }
        $found->update(['sent_at' => Carbon::now(), 'failure' => null]);
    }
}
