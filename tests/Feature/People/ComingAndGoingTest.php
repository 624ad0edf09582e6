<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\People;

use Illuminate\Support\Facades\Mail;
use LucidStep\App\Areas\People\Queries\InvitationLinks;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Invitation;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * People come and go in whatever order: what must hold of a project always does.
 */
final class ComingAndGoingTest extends FeatureTestCase
{
    /** @var array<string, User> */
    private array $everybody = [];

    public function test_whatever_happens_a_project_has_an_admin_and_nobody_keeps_what_they_left(): void
    {
        Mail::fake();
        mt_srand(14);
        $boss = $this->world->person('boss', Role::Admin);
        $this->everybody = ['boss' => $boss];
        foreach (range(1, 6) as $i) {
            $this->everybody["p{$i}"] = $this->world->person(
                "p{$i}",
                [Role::Admin, Role::Lead, Role::Tester, Role::Developer, Role::Reader][$i % 5],
            );
        }
        foreach (range(1, 8) as $i) {
            $this->world->entry($this->everybody['p' . (2 + 5 * ($i % 2))] ?? $this->everybody['p2']);
        }
        $statuses = [];
        for ($turn = 0; $turn < 250; $turn++) {
            $by = 0 === mt_rand(0, 2) ? $this->anybody() : $this->admin();
            $who = $this->anybody();
            $to = 0 === mt_rand(0, 2) ? null : $this->anybody()->id;
            $role = Role::cases()[mt_rand(0, 4)]->value;
            $answer = match (mt_rand(0, 4)) {
                0 => $this->as($by, 'POST', "/projects/TST/people/{$who->id}/departures", ['to' => $to]),
                1 => $this->as($by, 'PUT', "/projects/TST/people/{$who->id}/role", ['role' => $role]),
                2, 3 => $this->as($by, 'POST', '/projects/TST/invitations', ['text' => $who->email, 'role' => $role]),
                default => $this->accept($who),
            };
            $status = \is_int($answer) ? $answer : $answer->getStatusCode();
            $statuses[$status] = ($statuses[$status] ?? 0) + 1;
            $this->holds("turn {$turn}");
        }
        // It did happen: things went, were refused to whoever may not, and were refused by the rules.
        foreach ([200, 403, 409] as $status) {
            self::assertGreaterThan(2, $statuses[$status] ?? 0, "{$status} in " . json_encode($statuses));
        }
    }

    private function holds(string $when): void
    {
        $members = Membership::query()
            ->where('project_id', $this->world->project->id)
            ->get()
            ->keyBy('user_id');
        self::assertGreaterThan(0, $members->where('role', Role::Admin)->count(), "{$when}: an admin");
        foreach (
            Entry::query()
                ->whereNotNull('assignee_id')
                ->whereIn('display_state', ['not_run', 'in_progress', 'retest'])
                ->get()
            as $entry
        ) {
            $holder = $members->get((string) $entry->assignee_id);
            self::assertTrue($holder?->role->records() ?? false, "{$when}: whoever has an entry can walk it");
        }
        self::assertSame(
            Invitation::open()->count(),
            Invitation::open()->distinct()->count('email'),
            "{$when}: one open invitation for each address",
        );
    }

    private function admin(): User
    {
        $admin = Membership::query()
            ->where('project_id', $this->world->project->id)
            ->where('role', Role::Admin)
            ->orderBy('id')
            ->firstOrFail();

        return User::query()->findOrFail($admin->user_id);
    }

    private function anybody(): User
    {
        return $this->everybody[array_rand($this->everybody)];
    }

    private function accept(User $who): int
    {
        $open = Invitation::open()->where('email', $who->email)->first();

        return null === $open
            ? 0
            : $this->as($who, 'POST', '/invitation-acceptances', ['token' => InvitationLinks::token($open)])->getStatusCode();
    }
}
