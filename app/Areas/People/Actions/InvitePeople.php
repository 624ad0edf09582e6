<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\People\Data\InvitedLine;
use LucidStep\App\Areas\People\Exceptions\InvitationOver;
use LucidStep\App\Areas\People\Jobs\SendInvitation;
use LucidStep\App\Areas\People\Queries\InvitationLinks;
use LucidStep\App\Models\Invitation;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Transactions;
use LucidStep\Core\Access\InvitationLine;
use LucidStep\Core\Access\InvitationList;
use LucidStep\Core\Access\Role;

/**
 * Asks people into a project, one or thousands: each line by itself, so that one that cannot be read keeps no other back.
 */
final class InvitePeople
{
    /** So many rows are written at once. */
    private const CHUNK = 500;

    /**
     * @param  string  $text a line for each ({@see InvitationList})
     * @param  Role  $role for lines that name none
     *
     * @throws ValidationException when there is no line, or there are too many
     * @return list<InvitedLine> what became of each line
     */
    public function __invoke(Project $project, User $inviter, string $text, Role $role): array
    {
        $lines = InvitationList::read($text, $role->value);
        $count = \count($lines);
        if (0 === $count || $count > InvitationList::MOST) {
            throw ValidationException::withMessages([
                'text' =>
                    0 === $count
                        ? 'Write at least one mail address.'
                        : \sprintf('These are %s lines; at most %s at once.', number_format($count), number_format(InvitationList::MOST)),
            ]);
        }

        return Transactions::run(fn(): array => $this->invite($project, $inviter, $lines));
    }

    /**
     * @param  list<InvitationLine>  $lines
     *
     * @return list<InvitedLine>
     */
    private function invite(Project $project, User $inviter, array $lines): array
    {
        // Two who invite at once wait for each other, so that nobody is asked twice.
        Project::query()
            ->lockForUpdate()
            ->findOrFail($project->id, ['id']);
        $addresses = array_column($lines, 'email');
        $members = DB::table('memberships')
            ->join('users', 'users.id', '=', 'user_id')
            ->where('project_id', $project->id)
            ->whereIn('email', $addresses)
            ->pluck('role', 'email');
        $open = Invitation::open()->where('project_id', $project->id)->whereIn('email', $addresses)->pluck('id', 'email');
        $now = Carbon::now();
        $told = $rows = [];
        foreach ($lines as $line) {
            $member = $members->get($line->email);
            $told[] = match (true) {
                null !== $line->problem => InvitedLine::refused($line, $line->problem),
                null !== $member => InvitedLine::refused($line, "{$line->email} is in the project already, as {$member}."),
                default => new InvitedLine($line->number, $line->text, $line->email, $open->has($line->email) ? 'again' : 'invited', null),
            };
            if (null === $line->problem && null === $member) {
                $rows[] = [
                    'id' => $open->get($line->email) ?? (string) Str::uuid7(),
                    'project_id' => $project->id,
                    'email' => $line->email,
                    'name' => $line->name,
                    'role' => $line->role,
                    'inviter_id' => $inviter->id,
                    'created_at' => $now->format('Y-m-d H:i:s.uP'),
                    'expires_at' => $now->copy()->addDays(Invitation::DAYS)->format('Y-m-d H:i:s.uP'),
                    // Asked again, the mail goes again.
                    'sent_at' => null,
                    'failure' => null,
                ];
            }
        }
        foreach (array_chunk($rows, self::CHUNK) as $some) {
            DB::table('invitations')->upsert($some, ['id'], ['name', 'role', 'inviter_id', 'expires_at', 'sent_at', 'failure']);
        }
        Queue::bulk(array_map(static fn(array $row): SendInvitation => new SendInvitation($row['id']), $rows));

        return $told;
    }

    /**
     * Sends it once more, for another seven days.
     *
     * @throws InvitationOver when it was accepted or withdrawn meanwhile
     */
    public function again(Invitation $invitation): void
    {
        self::sureUndecided($invitation);
        $invitation->update(['expires_at' => Carbon::now()->addDays(Invitation::DAYS), 'failure' => null, 'sent_at' => null]);
        SendInvitation::dispatch($invitation->id);
    }

    /**
     * Nobody can accept it any more.
     *
     * @throws InvitationOver when it was accepted or withdrawn meanwhile
     */
    public function withdraw(Invitation $invitation): void
    {
        self::sureUndecided($invitation);
        $invitation->update(['withdrawn_at' => Carbon::now()]);
    }

    /**
     * @throws InvitationOver when it was accepted or withdrawn meanwhile
     * @return string where it is accepted
     */
    public function address(Invitation $invitation): string
    {
        self::sureUndecided($invitation);

        return InvitationLinks::address($invitation);
    }

    private static function sureUndecided(Invitation $invitation): void
    {
        $over = $invitation->state()->isUndecided() ? null : InvitationOver::of($invitation);
        if (null !== $over) {
            throw $over;
        }
    }
}
