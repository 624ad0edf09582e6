<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\People;

use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Facades\Log;
use LucidStep\App\Models\User;
use LucidStep\Tests\Support\FeatureTestCase;
use Monolog\Handler\TestHandler;
use Monolog\Logger;
use Psr\Log\LoggerInterface;

/**
 * The way in: under which names the installation answers, how it lets people in, and what it keeps of that.
 */
final class AccessTest extends FeatureTestCase
{
    public function test_only_the_names_of_the_installation_are_answered(): void
    {
        config(['app.url' => 'https://walk.example', 'lucid.hosts' => ['inner.example']]);
        foreach (
            ['walk.example' => 401, 'inner.example' => 401, 'evil.example' => 421, '127.0.0.1' => 421, 'walk.example.evil' => 421]
            as $host => $is
        ) {
            $answer = $this->get("https://{$host}/api/v1/session", ['Accept' => 'application/json'])->assertStatus($is);
            self::assertSame('application/problem+json', $answer->headers->get('Content-Type'), $host);
            self::assertStringNotContainsString('evil', (string) $answer->getContent());
        }
        $this->get('https://evil.example/')->assertStatus(421);
        config(['app.url' => 'http://127.0.0.1:8188', 'lucid.hosts' => []]);
        $this->get('http://localhost:8188/api/v1/session', ['Accept' => 'application/json'])->assertStatus(401);
        $this->get('http://walk.example/api/v1/session', ['Accept' => 'application/json'])->assertStatus(421);
    }

    public function test_addresses_are_those_of_the_installation_whatever_a_request_calls_it(): void
    {
        config(['lucid.hosts' => ['other.example']]);
        $this->get('http://other.example:81/api/v1/welcome', ['X-Forwarded-Host' => 'evil.example'])->assertStatus(421);
        $this->get('http://other.example:81/api/v1/welcome')->assertOk();
        self::assertSame('http://127.0.0.1:8188/SKR', url('/SKR'));
    }

    public function test_behind_tls_browsers_are_told_to_stay_there(): void
    {
        $this->get('/up')->assertHeaderMissing('Strict-Transport-Security');
        config(['app.url' => 'https://127.0.0.1']);
        $this->get('https://127.0.0.1/up')->assertHeader('Strict-Transport-Security', 'max-age=31536000');
    }

    /**
     * Neither the answer nor the work tells whether an address is somebody's.
     */
    public function test_an_address_that_nobody_has_costs_as_much_as_a_wrong_password(): void
    {
        $this->world->person();
        Hash::spy();
        Hash::shouldReceive('make')->andReturn('made');
        Hash::shouldReceive('check')->twice()->andReturn(false);
        $said = [];
        foreach (['tester@example.test', 'nobody@example.test'] as $email) {
            $said[] = $this->postJson('/api/v1/session', ['email' => $email, 'password' => 'x'])
                ->assertUnprocessable()
                ->json();
        }
        self::assertSame($said[0], $said[1]);
    }

    public function test_failed_tries_are_counted_by_the_address_as_it_is_kept(): void
    {
        $user = $this->world->person();
        foreach ([' %s', '%s ', '%s', "\t%s", '%S', '%s'] as $form) {
            $typed = '%S' === $form ? strtoupper($user->email) : sprintf($form, $user->email);
            $this->postJson('/api/v1/session', ['email' => $typed, 'password' => 'wrong'])->assertUnprocessable();
        }
        $this->postJson('/api/v1/session', ['email' => "  {$user->email}", 'password' => 'wrong'])->assertStatus(429);
    }

    public function test_the_log_of_access_says_who_did_what_and_nothing_that_was_typed(): void
    {
        $kept = new TestHandler();
        $this->app?->instance(
            'log',
            $log = new class ($kept) extends \Illuminate\Log\LogManager {
                public function __construct(private TestHandler $kept)
                {
                    parent::__construct(app());
                }

                public function channel($channel = null): LoggerInterface
                {
                    return 'security' === $channel ? new Logger('security', [$this->kept]) : parent::channel($channel);
                }
            },
        );
        Log::swap($log);
        $lead = $this->world->lead();
        $tester = $this->world->person();
        $lead->forceFill(['password' => 'a-long-secret'])->save();
        $this->postJson('/api/v1/session', ['email' => 'my-password-4711', 'password' => 'GEHEIM-4711'])->assertUnprocessable();
        $this->postJson('/api/v1/session', ['email' => $lead->email, 'password' => 'a-long-secret'])->assertOk();
        $this->as($lead, 'PUT', '/projects/TST/policies', ['only_assignee_records' => true])->assertOk();
        $this->as($lead, 'POST', '/projects/TST/labels', ['names' => ['GEHEIM-4711']])->assertOk();
        $this->as($tester, 'PUT', '/projects/TST/policies', ['only_assignee_records' => false])->assertForbidden();
        $this->as($lead, 'PUT', '/projects/TST/scratch', ['text' => 'not of settings'])->assertOk();
        $this->as($lead, 'DELETE', '/session')->assertNoContent();
        $lines = array_map(
            static fn(\Monolog\LogRecord $r): array => [$r->message, $r->context['who'], $r->context['operation'], $r->context['status']],
            $kept->getRecords(),
        );
        self::assertSame(
            [
                ['sign-in-refused', null, 'POST api/v1/session', 422],
                ['signed-in', $lead->id, 'POST api/v1/session', 200],
                ['changed', $lead->id, 'PUT api/v1/projects/{project}/policies', 200],
                ['changed', $lead->id, 'POST api/v1/projects/{project}/labels', 200],
                ['refused', $tester->id, 'PUT api/v1/projects/{project}/policies', 403],
                ['signed-out', $lead->id, 'DELETE api/v1/session', 204],
            ],
            $lines,
        );
        self::assertStringNotContainsString(
            '4711',
            (string) json_encode(array_map(static fn(\Monolog\LogRecord $r): array => $r->toArray(), $kept->getRecords())),
        );
        self::assertSame($this->world->project->id, $kept->getRecords()[2]->context['on']);
    }

    /**
     * An installation that was a demo and is none any more.
     */
    public function test_a_demo_that_is_closed_lets_nobody_in(): void
    {
        $password = (string) config('lucid.demo_password');
        $user = User::query()->create(['name' => 'Maren Voss', 'email' => 'maren@skerrywick.test', 'password' => $password]);
        $user->createToken('script');
        $mine = $this->world->person();
        $in = fn(string $email, string $with) => $this->postJson('/api/v1/session', [
            'email' => $email,
            'password' => $with,
        ])->getStatusCode();
        self::assertSame(200, $in($user->email, $password));
        $session = static fn(string $id, User $of): bool => DB::table('sessions')->insert([
            'id' => $id,
            'user_id' => $of->id,
            'payload' => '',
            'last_activity' => time(),
        ]);
        $session('of the demo', $user);
        $session('of somebody', $mine);
        config(['lucid.demo' => false]);
        self::assertSame(0, Artisan::call('lucid:demo --close'));
        self::assertStringContainsString('Closed 1 sign-ins', Artisan::output());
        self::assertSame(['of somebody'], DB::table('sessions')->pluck('id')->all(), 'nobody else is signed out');
        self::assertSame(422, $in($user->email, $password));
        self::assertSame(0, $user->tokens()->count());
        $this->getJson('/api/v1/welcome')->assertExactJson(['demo' => false, 'sign_ins' => [], 'practice_url' => null]);
        self::assertSame(0, Artisan::call('lucid:demo --close'), 'again is harmless');
        // And another password than before, when it is a demo again.
        config(['lucid.demo' => true, 'lucid.demo_password' => 'another-one']);
        self::assertSame(0, Artisan::call('lucid:demo --if-empty'));
        self::assertSame([422, 200], [$in($user->email, $password), $in($user->email, 'another-one')]);
        self::assertTrue($mine->exists);
    }
}
