<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\People;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Areas\People\Actions\OneTimeLinks;
use LucidStep\App\Models\User;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * One's own account: name, password, and sessions that one sees and ends.
 */
final class AccountTest extends FeatureTestCase
{
    private const OLD = 'the one before this one';

    private const NEW = 'four lanterns on the quay';

    private User $ana;

    protected function setUp(): void
    {
        parent::setUp();
        config(['session.driver' => 'database']);
        $this->ana = User::query()
            ->create(['name' => 'Ana', 'email' => 'ana@bakery.test', 'password' => self::OLD])
            ->refresh();
    }

    public function test_sessions_are_listed_by_device_and_ended_one_by_one(): void
    {
        $phone = $this->signIn('Mozilla/5.0 (iPhone; CPU iPhone OS 17_1 like Mac OS X) Safari/604');
        $desk = $this->signIn('Mozilla/5.0 (X11; Linux x86_64) Firefox/120.0');
        $page = $this->in($desk, 'GET', '/account')->assertOk();
        $page->assertJsonPath('email', 'ana@bakery.test')->assertJsonCount(2, 'sessions');
        $devices = array_column($page->json('sessions'), 'is_this', 'device');
        self::assertSame(
            ['Firefox on Linux' => true, 'Safari on iPhone' => false],
            [
                'Firefox on Linux' => $devices['Firefox on Linux'] ?? null,
                'Safari on iPhone' => $devices['Safari on iPhone'] ?? null,
            ],
        );
        $name = array_column($page->json('sessions'), 'id', 'device')['Safari on iPhone'];
        self::assertStringNotContainsString($phone, (string) $page->getContent(), 'what opens a session is not told');
        $this->in($desk, 'DELETE', "/account/sessions/{$name}")
            ->assertOk()
            ->assertJsonCount(1, 'sessions');
        $this->in($phone, 'GET', '/session')->assertUnauthorized();
        $this->in($desk, 'GET', '/session')->assertOk();
        $this->in($desk, 'DELETE', "/account/sessions/{$name}")->assertNotFound();
    }

    public function test_how_one_wants_to_work_is_kept_part_by_part_and_told_with_the_session(): void
    {
        $me = $this->ana;
        $prefer = fn(array $what): TestResponse => $this->as($me->refresh(), 'PATCH', '/account/preferences', $what);
        $usual = $this->as($me, 'GET', '/account')->assertOk()->json('preferences');
        self::assertSame([null, 'system', 'roomy', true, []], array_values(array_diff_key($usual, ['notices' => 0])));
        $swapped = [['key' => '1', 'pressed' => 'j'], ['key' => 'j', 'pressed' => '1']];
        $prefer(['time_zone' => 'Europe/Berlin', 'scheme' => 'dark'])->assertOk();
        $prefer(['keys' => $swapped, 'single_keys' => false])->assertOk();
        $prefer(['notices' => [['kind' => 'assigned', 'here' => false, 'mail' => true]]])->assertOk();
        $kept = $this->as($me->refresh(), 'GET', '/session')->assertOk()->json('preferences');
        self::assertSame(['Europe/Berlin', 'dark', 'roomy', false, $swapped], array_values(array_diff_key($kept, ['notices' => 0])));
        $told = array_column($kept['notices'], null, 'kind');
        self::assertSame(['kind' => 'assigned', 'here' => false, 'mail' => true], $told['assigned']);
        self::assertSame(['kind' => 'ended', 'here' => true, 'mail' => true], $told['ended']);
        $prefer(['keys' => [], 'time_zone' => null])
            ->assertOk()
            ->assertJsonPath('preferences.keys', [])
            ->assertJsonPath('preferences.time_zone', null);
    }

    public function test_a_choice_of_another_tab_is_kept_beside_ones_own(): void
    {
        // Who is signed in was read before the other tab saved.
        $stale = $this->ana->fresh() ?? $this->ana;
        $this->as($this->ana, 'PATCH', '/account/preferences', ['density' => 'dense'])->assertOk();
        $this->as($stale, 'PATCH', '/account/preferences', ['scheme' => 'dark'])
            ->assertOk()
            ->assertJsonPath('preferences.density', 'dense')
            ->assertJsonPath('preferences.scheme', 'dark');
    }

    public function test_what_cannot_be_chosen_is_refused_by_field_and_nothing_changes(): void
    {
        $before = $this->as($this->ana, 'GET', '/account')->json('preferences');
        foreach (
            [
                'time_zone' => ['time_zone' => 'Atlantis/Deep'],
                'scheme' => ['scheme' => 'sepia'],
                'density' => ['density' => 'airy', 'scheme' => 'dark'],
                'keys' => ['keys' => [['key' => '1', 'pressed' => 'j']], 'scheme' => 'dark'],
                'notices.0.kind' => ['notices' => [['kind' => 'weather', 'here' => true, 'mail' => true]]],
            ]
            as $field => $body
        ) {
            $this->as($this->ana->refresh(), 'PATCH', '/account/preferences', $body)
                ->assertUnprocessable()
                ->assertJsonValidationErrors($field);
        }
        self::assertSame($before, $this->as($this->ana->refresh(), 'GET', '/account')->json('preferences'));
    }

    public function test_nobody_ends_the_session_of_another(): void
    {
        $mine = $this->signIn('Firefox/1 Linux');
        $other = User::query()
            ->create(['name' => 'Ben', 'email' => 'ben@bakery.test', 'password' => self::OLD])
            ->refresh();
        $his = $this->signIn('Firefox/1 Windows', $other);
        $name = (string) $this->in($his, 'GET', '/account')->json('sessions.0.id');
        $this->in($mine, 'DELETE', "/account/sessions/{$name}")->assertNotFound();
        $this->in($mine, 'DELETE', '/account/sessions')->assertOk();
        $this->in($his, 'GET', '/session')->assertOk();
    }

    public function test_another_password_needs_the_one_before_and_ends_every_other_session_and_token(): void
    {
        [$there, $here] = [$this->signIn('Firefox/1 Windows'), $this->signIn('Firefox/1 Linux')];
        $this->ana->createToken('a program');
        $change = fn(string $old, string $new) => $this->in($here, 'PUT', '/account/password', ['old' => $old, 'password' => $new]);
        $change('a guess', self::NEW)->assertJsonPath('errors.old.0', 'This is not the password that you have now.');
        $change(self::OLD, 'password1234')->assertJsonStructure(['errors' => ['password']]);
        $this->in($there, 'GET', '/session')->assertOk();
        $change(self::OLD, self::NEW)->assertOk()->assertJsonCount(1, 'sessions');
        self::assertTrue(Hash::check(self::NEW, $this->ana->refresh()->password));
        self::assertSame(0, $this->ana->tokens()->count());
        $this->in($there, 'GET', '/session')->assertUnauthorized();
        $this->in($here, 'GET', '/session')->assertOk();
    }

    public function test_an_address_that_works_once_ends_every_session_before(): void
    {
        $there = $this->signIn('Firefox/1 Windows');
        $token = explode('#', OneTimeLinks::make(\LucidStep\App\Models\LinkPurpose::Password, $this->ana))[1];
        $this->fresh();
        $this->json(
            'POST',
            '/api/v1/link-uses',
            ['token' => $token, 'password' => self::NEW],
            ['Referer' => (string) config('app.url')],
        )->assertOk();
        self::assertFalse(DB::table('sessions')->where('id', $there)->exists());
        $this->in($there, 'GET', '/session')->assertUnauthorized();
    }

    public function test_a_name_is_changed_everywhere_at_once(): void
    {
        $me = $this->world->person();
        $this->as($me, 'PATCH', '/account', ['name' => '  Ana Grove '])
            ->assertOk()
            ->assertJsonPath('name', 'Ana Grove');
        $this->as($me, 'PATCH', '/account', ['name' => ' '])->assertUnprocessable();
        $names = array_column($this->as($this->world->lead(), 'GET', '/projects/TST/people')->json('people'), 'name');
        self::assertContains('Ana Grove', $names);
    }

    /**
     * A session that was ended stays ended, also when a request that began before is answered after.
     */
    public function test_what_is_still_under_way_brings_no_ended_session_back(): void
    {
        $id = $this->signIn('Firefox/1 Linux');
        $handler = app('session')->driver('database')->getHandler();
        $handler->read($id);
        DB::table('sessions')->where('id', $id)->delete();
        $handler->write($id, 'anything');
        self::assertFalse(DB::table('sessions')->where('id', $id)->exists());
    }

    /**
     * @return string the id of the session that began
     */
    private function signIn(string $browser, ?User $user = null): string
    {
        $this->fresh();
        $before = DB::table('sessions')->pluck('id')->all();
        $this->json(
            'POST',
            '/api/v1/session',
            ['email' => ($user ?? $this->ana)->email, 'password' => self::OLD],
            ['User-Agent' => $browser, 'Referer' => (string) config('app.url')],
        )->assertOk();

        return (string) DB::table('sessions')->whereNotIn('id', $before)->whereNotNull('user_id')->value('id');
    }

    /**
     * @param  array<string, mixed>  $body
     * @return \Illuminate\Testing\TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function in(string $session, string $method, string $path, array $body = []): \Illuminate\Testing\TestResponse
    {
        $this->fresh();
        $agent = (string) DB::table('sessions')->where('id', $session)->value('user_agent');

        return $this->withCredentials()
            ->withCookie((string) config('session.cookie'), $session)
            ->json($method, "/api/v1{$path}", $body, ['User-Agent' => $agent, 'Referer' => (string) config('app.url')]);
    }

    private function fresh(): void
    {
        $this->app?->forgetScopedInstances();
        $this->app?->make('auth')->forgetGuards();
        $this->app?->forgetInstance('auth.driver');
        $this->app?->forgetInstance('session');
        $this->app?->forgetInstance('session.store');
        $this->app?->forgetInstance(\Illuminate\Session\Middleware\StartSession::class);
        $this->defaultCookies = [];
    }
}
