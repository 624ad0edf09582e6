<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\People;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Mail;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Areas\Mail\PlainMail;
use LucidStep\App\Areas\People\Jobs\SendInvitation;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Invitation;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Mailer\Exception\TransportException;

/**
 * Inviting, joining, roles and leaving.
 */
final class PeopleTest extends FeatureTestCase
{
    use Walks;

    private User $admin;

    protected function setUp(): void
    {
        parent::setUp();
        $this->admin = $this->world->person('admin', Role::Admin);
    }

    public function test_many_are_invited_at_once_and_each_line_says_what_became_of_it(): void
    {
        $member = $this->world->person();
        $this->invite("Name,Email,Role\nAna Bell,ana@bakery.test,lead\n{$member->email}\nnobody\nben@bakery.test")
            ->assertCreated()
            ->assertJsonPath('0.became', 'invited')
            ->assertJsonPath('1.problem', "{$member->email} is in the project already, as tester.")
            ->assertJsonPath('2.line', 4)
            ->assertJsonPath('2.text', 'nobody')
            ->assertJsonPath('3.became', 'invited');
        $this->invite('ANA@bakery.test')->assertJsonPath('0.became', 'again');
        $page = $this->as($this->admin, 'GET', '/projects/TST/people')->assertOk();
        self::assertSame(
            ['ana@bakery.test' => 'tester', 'ben@bakery.test' => 'tester'],
            array_column($page->json('invitations'), 'role', 'email'),
            'asked again, the newest role counts',
        );
        self::assertSame(['sent', 'sent'], array_column($page->json('invitations'), 'state'));
        foreach ([Role::Lead, Role::Reader] as $role) {
            $other = $this->as($this->world->person($role->value, $role), 'GET', '/projects/TST/people')->assertOk();
            self::assertSame([[], null, false], [$other->json('invitations'), $other->json('people.0.email'), $other->json('may_manage')]);
        }
        $this->invite('')->assertUnprocessable();
        $this->invite(" \n;")->assertJsonPath('errors.text.0', 'Write at least one mail address.');
        $this->invite(implode("\n", array_fill(0, 5001, 'x')))->assertJsonPath(
            'errors.text.0',
            'These are 5,001 lines; at most 5,000 at once.',
        );
    }

    public function test_five_thousand_are_invited_in_a_few_queries(): void
    {
        Mail::fake();
        config(['queue.default' => 'database']);
        $text = implode("\n", array_map(static fn(int $i): string => "p{$i}@bakery.test", range(1, 5000)));
        $queries = $this->queries(fn() => $this->invite($text)->assertCreated()->assertJsonCount(5000));
        self::assertLessThan(40, $queries);
        self::assertSame(5000, Invitation::open()->count());
        self::assertSame(5000, DB::table('jobs')->count());
    }

    public function test_an_invited_person_makes_an_account_joins_and_walks(): void
    {
        $token = $this->token('ana@bakery.test');
        $this->guest('/invitation-lookups', ['token' => $token])
            ->assertOk()
            ->assertJsonPath('project', 'Project TST')
            ->assertJsonPath('has_account', false);
        $this->guest('/invitation-acceptances', ['token' => $token])->assertJsonPath('errors.name.0', fn(string $m): bool => '' !== $m);
        $this->guest('/invitation-acceptances', ['token' => $token, 'name' => 'Ana', 'password' => 'too short'])->assertJsonPath(
            'errors.password.0',
            'Use at least 12 characters. Some words in a row are fine.',
        );
        self::assertNull(User::query()->where('email', 'ana@bakery.test')->first());
        $this->guest('/invitation-acceptances', ['token' => $token, 'name' => ' Ana Bell ', 'password' => 'four lanterns on the quay'])
            ->assertOk()
            ->assertJsonPath('user.name', 'Ana Bell')
            ->assertJsonPath('projects.0.role', 'tester');
        $ana = User::query()->where('email', 'ana@bakery.test')->firstOrFail();
        $attempt = $this->walked($this->world->entry($ana), $ana);
        $this->judge($ana, $attempt, 1, 1, 'pass');
        // Opened twice: by herself it leads on, by anybody else it says what it is.
        $this->as($ana, 'POST', '/invitation-acceptances', ['token' => $token])->assertOk();
        $this->guest('/invitation-lookups', ['token' => $token])
            ->assertConflict()
            ->assertJsonPath('why', 'used');
        self::assertSame(1, Membership::query()->where('user_id', $ana->id)->count());
    }

    public function test_who_has_an_account_joins_by_one_click_and_nobody_for_another(): void
    {
        $ana = User::query()->create(['name' => 'Ana', 'email' => 'ana@bakery.test', 'password' => 'x']);
        $token = $this->token('ana@bakery.test', 'lead');
        $this->guest('/invitation-lookups', ['token' => $token])->assertJsonPath('has_account', true);
        $this->guest('/invitation-acceptances', ['token' => $token, 'name' => 'Not Ana', 'password' => 'four lanterns on the quay'])
            ->assertConflict()
            ->assertJsonPath('type', 'urn:lucid-step:problem:sign-in-first');
        $other = $this->world->person();
        $this->as($other, 'POST', '/invitation-lookups', ['token' => $token])
            ->assertJsonPath('is_me', false)
            ->assertJsonPath('signed_in_as', $other->name);
        $this->as($other, 'POST', '/invitation-acceptances', ['token' => $token])
            ->assertConflict()
            ->assertJsonPath('type', 'urn:lucid-step:problem:invitation-of-another');
        $this->as($ana, 'POST', '/invitation-lookups', ['token' => $token])->assertJsonPath('is_me', true);
        $this->as($ana, 'POST', '/invitation-acceptances', ['token' => $token])
            ->assertOk()
            ->assertJsonPath('projects.0.role', 'lead');
    }

    public function test_an_invitation_that_is_over_says_how_and_one_that_nobody_made_is_not_there(): void
    {
        $token = $this->token('ana@bakery.test');
        $invitation = Invitation::open()->firstOrFail();
        $this->guest('/invitation-lookups', ['token' => strrev($token)])->assertNotFound();
        $this->guest('/invitation-lookups', ['token' => "{$invitation->id}." . str_repeat('0', 64)])->assertNotFound();
        $this->travel(Invitation::DAYS * 24 + 1)->hours();
        $this->guest('/invitation-acceptances', ['token' => $token])
            ->assertConflict()
            ->assertJsonPath('why', 'expired')
            ->assertJsonPath('detail', 'This invitation has expired. Ask Admin to send it again: that takes one click.');
        self::assertSame('expired', $this->as($this->admin, 'GET', '/projects/TST/people')->json('invitations.0.state'));
        $this->as($this->admin, 'POST', "/invitations/{$invitation->id}/sendings")->assertNoContent();
        $this->guest('/invitation-lookups', ['token' => $token])->assertOk();
        $this->as($this->admin, 'DELETE', "/invitations/{$invitation->id}")->assertNoContent();
        $this->guest('/invitation-lookups', ['token' => $token])
            ->assertConflict()
            ->assertJsonPath('why', 'withdrawn');
        // What is over is neither sent again nor told, by whatever button of a page that is out of date.
        foreach ([['POST', '/sendings'], ['POST', '/addresses'], ['DELETE', '']] as [$method, $way]) {
            $this->as($this->admin, $method, "/invitations/{$invitation->id}{$way}")
                ->assertConflict()
                ->assertJsonPath('why', 'withdrawn');
        }
        self::assertSame([], $this->as($this->admin, 'GET', '/projects/TST/people')->json('invitations'));
        $this->invite('ana@bakery.test')->assertJsonPath('0.became', 'invited');
        $log = $this->as($this->admin, 'GET', '/projects/TST/setup-log')->assertOk()->json('items');
        self::assertSame(
            ['Invited ana@bakery.test as tester', 'Withdrew the invitation of ana@bakery.test', 'Invited ana@bakery.test as tester'],
            array_merge(...array_column(\array_slice($log, 0, 3), 'lines')),
        );
    }

    public function test_a_mail_that_does_not_go_is_shown_and_sent_again_by_itself(): void
    {
        $this->invite('ana@bakery.test')->assertCreated();
        $invitation = Invitation::open()->firstOrFail();
        $working = Mail::getFacadeRoot();
        Mail::shouldReceive('to->send')->andThrow(new TransportException('Connection could not be established with host "mail"'));
        try {
            (new SendInvitation($invitation->id))->handle();
            self::fail('The queue tries it again.');
        } catch (TransportException) {
        }
        $this->as($this->admin, 'GET', '/projects/TST/people')
            ->assertJsonPath('invitations.0.state', 'failed')
            ->assertJsonPath('invitations.0.failure', 'Connection could not be established with host "mail"');
        Mail::swap($working);
        Mail::fake();
        (new SendInvitation($invitation->id))->handle();
        Mail::assertSent(PlainMail::class, static fn(PlainMail $m): bool => $m->hasTo('ana@bakery.test'));
        $this->as($this->admin, 'GET', '/projects/TST/people')->assertJsonPath('invitations.0.state', 'sent');
    }

    public function test_whoever_leaves_hands_on_what_is_open_and_stays_by_name_in_what_they_did(): void
    {
        [$ana, $ben] = [$this->world->person('ana'), $this->world->person('ben')];
        [$done, $open, $begun] = [$this->world->entry($ana), $this->world->entry($ana), $this->world->entry($ana)];
        $attempt = $this->finished($done, $ana);
        $this->walked($begun, $ana);
        $defect = $this->as($ana, 'POST', '/projects/TST/defects', ['title' => 'Crumbs'])->json('defect.id');
        Defect::query()
            ->whereKey($defect)
            ->update(['assignee_id' => $ana->id]);
        TestCase::query()
            ->whereKey($open->case_id)
            ->update(['owner_id' => $ana->id]);
        $this->world->cycle->update(['default_assignee_id' => $ana->id]);
        $open_of = fn(): array => array_column($this->as($this->admin, 'GET', '/projects/TST/people')->json('people'), 'open', 'id')[
            $ana->id
        ];
        self::assertSame(['2 entries', '1 defect', '1 case owned'], $open_of());
        $path = "/projects/TST/people/{$ana->id}/departures";
        $reader = $this->world->person('reader', Role::Reader);
        $this->as($this->admin, 'POST', $path, [])->assertJsonPath('errors.to.0', fn(string $m): bool => '' !== $m);
        $this->as($this->admin, 'POST', $path, ['to' => $reader->id])->assertJsonPath(
            'errors.to.0',
            'Reader is reader here and cannot have entries. Choose somebody who walks.',
        );
        $this->as($this->admin, 'POST', $path, ['to' => $ana->id])->assertUnprocessable();
        $this->as($ben, 'POST', $path, ['to' => $ben->id])->assertForbidden();
        $this->as($this->admin, 'POST', $path, ['to' => $ben->id])->assertNoContent();
        self::assertSame(
            [$ana->id, $ben->id, $ben->id],
            array_map(static fn($e): ?string => $e->refresh()->assignee_id, [$done, $open, $begun]),
        );
        self::assertSame($ben->id, Defect::query()->whereKey($defect)->firstOrFail()->assignee_id);
        self::assertSame($ben->id, TestCase::query()->findOrFail($open->case_id)->owner_id);
        self::assertSame($ben->id, $this->world->cycle->refresh()->default_assignee_id);
        $this->as($ana, 'GET', '/projects/TST')->assertNotFound();
        $this->as($ben, 'GET', "/attempts/{$attempt}")->assertJsonPath('attempt.tester.name', 'Ana');
        $this->as($ben, 'GET', "/attempts/{$attempt}/verification")->assertJsonPath('state', 'whole');
        $this->as($this->admin, 'GET', '/cycles/TST-R1/log')->assertSee('Ana left the project');
    }

    public function test_somebody_leaves_by_themselves_to_nobody_on_purpose(): void
    {
        $ana = $this->world->person('ana');
        $entry = $this->world->entry($ana);
        $this->as($ana, 'POST', "/projects/TST/people/{$ana->id}/departures", ['to' => null])->assertNoContent();
        self::assertNull($entry->refresh()->assignee_id);
        $this->as($ana, 'GET', '/projects')->assertExactJson([]);
    }

    public function test_an_admin_always_is(): void
    {
        $path = "/projects/TST/people/{$this->admin->id}";
        foreach ([['PUT', "{$path}/role", ['role' => 'lead']], ['POST', "{$path}/departures", ['to' => null]]] as [$method, $to, $body]) {
            $this->as($this->admin, $method, $to, $body)->assertConflict()->assertJsonPath('type', 'urn:lucid-step:problem:last-admin');
        }
        $ana = $this->world->person('ana');
        $this->as($this->admin, 'PUT', "/projects/TST/people/{$ana->id}/role", ['role' => 'admin'])->assertOk();
        $this->as($ana, 'PUT', "{$path}/role", ['role' => 'reader'])
            ->assertOk()
            ->assertJsonPath('may_manage', true);
        $this->as($this->admin, 'PUT', "{$path}/role", ['role' => 'admin'])->assertForbidden();
    }

    public function test_who_has_entries_does_not_become_somebody_who_cannot_walk_them(): void
    {
        $ana = $this->world->person('ana');
        $this->world->entry($ana);
        $this->as($this->admin, 'PUT', "/projects/TST/people/{$ana->id}/role", ['role' => 'developer'])->assertJsonPath(
            'errors.role.0',
            'Ana has 1 entry, which a developer cannot have. Hand them on first.',
        );
    }

    /**
     * @param  array<string, string>  $more
     * @return TestResponse<Response>
     */
    private function guest(string $path, array $more): TestResponse
    {
        $this->app?->make('auth')->forgetGuards();
        $this->app?->make('session')->flush();

        return $this->json('POST', "/api/v1{$path}", $more);
    }

    /**
     * @return TestResponse<Response>
     */
    private function invite(string $text, string $role = 'tester'): TestResponse
    {
        return $this->as($this->admin, 'POST', '/projects/TST/invitations', ['text' => $text, 'role' => $role]);
    }

    private function token(string $email, string $role = 'tester'): string
    {
        $this->invite($email, $role)->assertCreated();
        $invitation = Invitation::open()->where('email', $email)->firstOrFail();
        $address = (string) $this->as($this->admin, 'POST', "/invitations/{$invitation->id}/addresses")
            ->assertOk()
            ->json('address');

        return explode('#', $address)[1];
    }
}
