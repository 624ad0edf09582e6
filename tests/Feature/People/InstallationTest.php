<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\People;

use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Facades\Mail;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Areas\Mail\PlainMail;
use LucidStep\App\Areas\People\Actions\OneTimeLinks;
use LucidStep\App\Models\LinkPurpose;
use LucidStep\App\Models\OneTimeLink;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use Symfony\Component\HttpFoundation\Response;

/**
 * The first owner, owners, projects of the installation, and another password.
 */
final class InstallationTest extends FeatureTestCase
{
    private const PASSWORD = 'four lanterns on the quay';

    public function test_the_first_owner_is_made_once_by_the_printed_address(): void
    {
        $token = $this->printed();
        $this->guest('/link-lookups', ['token' => $token])
            ->assertOk()
            ->assertExactJson(['purpose' => 'owner', 'email' => null, 'name' => null]);
        $this->guest('/link-uses', ['token' => $token, 'password' => self::PASSWORD])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['name', 'email']]);
        $this->guest('/link-uses', ['token' => $token, 'name' => 'Ada', 'email' => 'Ada@Bakery.test', 'password' => self::PASSWORD])
            ->assertOk()
            ->assertJson(['is_owner' => true, 'email' => 'ada@bakery.test', 'projects' => []]);
        $this->guest('/link-lookups', ['token' => $token])->assertNotFound();
        self::assertSame(1, Artisan::call('lucid:owner'), 'there is one already');
        self::assertSame(0, Artisan::call('lucid:owner --if-none'));
        self::assertStringNotContainsString('begin#', Artisan::output());
        self::assertSame(1, Artisan::call('lucid:owner nobody@bakery.test'));
    }

    public function test_an_address_ends_after_an_hour_and_when_another_is_printed(): void
    {
        $first = $this->printed();
        $second = $this->printed();
        $this->guest('/link-lookups', ['token' => $first])->assertNotFound();
        $this->travel(61)->minutes();
        $this->guest('/link-uses', [
            'token' => $second,
            'name' => 'A',
            'email' => 'a@b.test',
            'password' => self::PASSWORD,
        ])->assertNotFound();
        self::assertFalse(User::query()->where('is_owner', true)->exists());
    }

    public function test_who_lost_everything_becomes_owner_again_and_programs_they_let_in_are_out(): void
    {
        $ada = $this->owner();
        $ada->createToken('a program');
        $token = $this->printed($ada->email);
        $this->guest('/link-lookups', ['token' => $token])->assertJson(['purpose' => 'owner', 'email' => $ada->email]);
        $this->guest('/link-uses', ['token' => $token, 'password' => 'another one on the quay'])->assertOk();
        self::assertTrue(Hash::check('another one on the quay', $ada->refresh()->password));
        self::assertSame(0, $ada->tokens()->count());
    }

    public function test_an_owner_makes_a_project_and_is_its_admin(): void
    {
        $ada = $this->owner();
        $make = fn(array $fields): TestResponse => $this->as($ada, 'POST', '/projects', [
            'code' => 'BAK',
            'name' => 'The bakery',
            'time_zone' => 'Europe/Berlin',
            ...$fields,
        ]);
        foreach (['bak', 'B', '1AB', 'BÄK', 'B-K', str_repeat('B', 11)] as $code) {
            $make(['code' => $code])->assertJsonPath(
                'errors.code.0',
                'A code is two to ten capital letters and digits, and begins with a letter.',
            );
        }
        $make(['time_zone' => 'Berlin'])->assertJsonStructure(['errors' => ['time_zone']]);
        $make(['code' => 'TST'])->assertJsonPath('errors.code.0', 'TST is taken. Every key of the project begins with it: choose another.');
        $make([])
            ->assertCreated()
            ->assertJson(['code' => 'BAK', 'role' => 'admin', 'archived_at' => null]);
        $this->as($ada, 'POST', '/projects/BAK/cases', ['title' => 'Rolls', 'steps' => []])
            ->assertCreated()
            ->assertJsonPath('case.key', 'BAK-C1');
        $this->as($ada, 'GET', '/projects/TST')->assertNotFound();
        $names = array_column($this->as($ada, 'GET', '/installation')->json('projects'), 'admins', 'code');
        self::assertSame(['TST' => [], 'BAK' => [$ada->name]], array_merge(['TST' => [], 'BAK' => []], $names));
    }

    public function test_a_project_is_made_like_another_that_one_leads(): void
    {
        $ada = $this->owner();
        $lead = $this->world->lead();
        $like = ['code' => 'BAK', 'name' => 'Bakery', 'time_zone' => 'UTC', 'like' => $this->world->project->id];
        $this->as($ada, 'POST', '/projects', $like)->assertJsonPath('errors.like.0', 'Choose a project that you lead.');
        $this->as($lead, 'PUT', '/projects/TST/axes', [
            'axes' => [
                ['name' => 'Oven', 'values' => [['name' => 'Stone'], ['name' => 'Gas']]],
                ['name' => 'Flour', 'values' => [['name' => 'Rye'], ['name' => 'Wheat']]],
            ],
            'forbidden' => [['axis' => 'Oven', 'value' => 'Gas', 'other_axis' => 'Flour', 'other_value' => 'Rye']],
        ])->assertOk();
        $this->world->policies(['only_approved_cases' => true]);
        $lists = ['items' => [['name' => 'Smoke'], ['name' => 'Taste', 'value' => null]]];
        $this->as($lead, 'PUT', '/projects/TST/lists/types', $lists)->assertSuccessful();
        $lead->forceFill(['is_owner' => true])->save();
        $this->as($lead, 'POST', '/projects', $like)->assertCreated();
        $read = fn(string $code, string $page): array => $this->as($lead, 'GET', "/projects/{$code}/{$page}")
            ->assertOk()
            ->json();
        $named = static fn(array $axes): array => array_map(
            static fn(array $a): array => [$a['name'], array_column($a['values'], 'name')],
            $axes,
        );
        [$from, $to] = [$read('TST', 'planning-setup'), $read('BAK', 'planning-setup')];
        self::assertSame([['Oven', ['Stone', 'Gas']], ['Flour', ['Rye', 'Wheat']]], $named($to['axes']));
        self::assertSame($from['forbidden'], $to['forbidden']);
        self::assertCount(1, $to['forbidden']);
        self::assertSame($read('TST', 'walk-setup')['policies'], $read('BAK', 'walk-setup')['policies']);
        $types = static fn(string $id): array => DB::table('list_items')
            ->where('project_id', $id)
            ->orderBy('position')
            ->pluck('name')
            ->all();
        $new = Project::query()->where('code', 'BAK')->firstOrFail();
        self::assertSame($types($this->world->project->id), $types($new->id));
        self::assertNotSame([], $types($new->id));
    }

    public function test_what_is_archived_is_read_and_not_written_whoever_asks(): void
    {
        $ada = $this->owner();
        $me = $this->world->person();
        $admin = $this->world->person('admin', Role::Admin);
        $entry = $this->world->entry($me);
        $attempt = $this->as($me, 'POST', "/entries/{$entry->id}/attempts")
            ->assertCreated()
            ->json('attempt.id');
        $id = $this->world->project->id;
        foreach ([1, 2] as $time) {
            $page = $this->as($ada, 'POST', "/installation/projects/{$id}/archivings")->assertOk();
            self::assertNotNull($page->json('projects.0.archived_at'), "time {$time}: two owners at once are one");
        }
        foreach (
            [
                ['POST', '/projects/TST/cases', ['title' => 'x']],
                ['POST', "/attempts/{$attempt}/verdicts", ['round' => 1, 'step' => 1, 'verdict' => 'pass']],
                ['PATCH', '/cycles/TST-R1', ['name' => 'x', 'revision' => 0]],
                ['POST', '/projects/TST/invitations', ['text' => 'a@b.test', 'role' => 'lead']],
            ]
            as [$method, $path, $body]
        ) {
            $this->as($admin, $method, $path, $body)->assertConflict()->assertJsonPath('type', 'urn:lucid-step:problem:archived');
        }
        $this->as($me, 'GET', "/attempts/{$attempt}")->assertOk();
        $this->as($me, 'POST', '/projects/TST/case-exports', ['format' => 'csv'])->assertSuccessful();
        $this->as($me, 'GET', '/projects')->assertJsonPath('0.archived_at', fn(?string $at): bool => null !== $at);
        $this->as($ada, 'POST', "/installation/projects/{$id}/restorations")->assertOk();
        $this->as($me, 'POST', "/attempts/{$attempt}/verdicts", ['round' => 1, 'step' => 1, 'verdict' => 'pass'])->assertOk();
        $log = $this->as($admin, 'GET', '/projects/TST/setup-log')->json('items');
        self::assertContains('The project was archived', array_merge(...array_column($log, 'lines')));
        self::assertContains('The project was taken up again', array_merge(...array_column($log, 'lines')));
    }

    public function test_an_owner_always_is(): void
    {
        $ada = $this->owner();
        $ben = $this->world->person();
        $of = fn(User $user): string => "/installation/people/{$user->id}/ownership";
        $this->as($ada, 'PUT', $of($ada), ['is_owner' => false])
            ->assertConflict()
            ->assertJsonPath('type', 'urn:lucid-step:problem:last-owner');
        $this->as($ada, 'PUT', $of($ben), ['is_owner' => true])->assertOk();
        $this->as($ben->refresh(), 'PUT', $of($ada), ['is_owner' => false])->assertOk();
        $this->as($ada->refresh(), 'GET', '/installation')->assertForbidden();
        $this->as($ben, 'PUT', '/installation/people/nobody/ownership', ['is_owner' => true])->assertNotFound();
    }

    public function test_another_password_by_mail_and_the_same_answer_for_an_address_that_nobody_has(): void
    {
        Mail::fake();
        $ben = User::query()->create(['name' => 'Ben', 'email' => 'ben@bakery.test', 'password' => 'an old one of his']);
        $known = $this->guest('/password-resets', ['email' => ' Ben@bakery.test '])->assertNoContent();
        $unknown = $this->guest('/password-resets', ['email' => 'nobody@bakery.test'])->assertNoContent();
        self::assertSame($known->getContent(), $unknown->getContent());
        Mail::assertSent(PlainMail::class, 1);
        $this->guest('/password-resets', ['email' => 'ben@bakery.test'])->assertNoContent();
        self::assertSame(1, OneTimeLink::query()->whereNull('used_at')->count(), 'the newest alone works');
        $token = explode('#', OneTimeLinks::make(LinkPurpose::Password, $ben))[1];
        $this->guest('/link-uses', ['token' => $token, 'password' => '123456789012'])->assertJsonPath(
            'errors.password.0',
            'This is one of the commonest passwords, which are tried first. Choose another.',
        );
        $this->guest('/link-uses', ['token' => $token, 'password' => self::PASSWORD])
            ->assertOk()
            ->assertJsonPath('is_owner', false);
        $this->guest('/session', ['email' => 'ben@bakery.test', 'password' => 'an old one of his'])->assertUnprocessable();
        $this->guest('/session', ['email' => 'ben@bakery.test', 'password' => self::PASSWORD])->assertOk();
    }

    public function test_nobody_tries_addresses_out(): void
    {
        foreach (range(1, 30) as $i) {
            $this->guest('/link-lookups', ['token' => "guess {$i}"])->assertNotFound();
        }
        $this->guest('/link-lookups', ['token' => 'guess 31'])->assertTooManyRequests();
    }

    private function owner(): User
    {
        return User::query()
            ->create(['name' => 'Ada', 'email' => 'ada@bakery.test', 'password' => self::PASSWORD, 'is_owner' => true])
            ->refresh();
    }

    /**
     * @return string what the printed address proves itself with
     */
    private function printed(string $email = ''): string
    {
        self::assertSame(0, Artisan::call('lucid:owner', '' === $email ? [] : ['email' => $email]));
        self::assertSame(1, preg_match('~/begin#(\w{48})~', Artisan::output(), $found));

        return $found[1] ?? '';
    }

    /**
     * @param  array<string, string>  $body
     * @return TestResponse<Response>
     */
    private function guest(string $path, array $body): TestResponse
    {
        $this->app?->make('auth')->forgetGuards();
        $this->app?->make('session')->flush();

        return $this->json('POST', "/api/v1{$path}", $body);
    }
}
