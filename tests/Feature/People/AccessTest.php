<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\People;

use Illuminate\Routing\Route as Path;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Http\RouteAttribute;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\ApiOperations;
use LucidStep\Tests\Support\Everything;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\FittingBodies;
use LucidStep\Tests\Support\Walks;

/**
 * What a project says of who may what holds at every address, made from the description of the API.
 */
final class AccessTest extends FeatureTestCase
{
    use ApiOperations;
    use Everything;
    use FittingBodies;
    use Walks;

    private const NAME = 'Ottoline Querrymore';

    private const NOTE = 'The quay light flickers greenish';

    private User $admin;

    protected function setUp(): void
    {
        parent::setUp();
        $this->admin = $this->world->person('admin', Role::Admin);
    }

    public function test_a_reader_who_may_not_see_evidence_finds_no_note_no_picture_and_no_name_at_any_address(): void
    {
        $this->spec = self::description();
        $this->ids = $this->everything($this->world);
        $tester = $this->world->person('walks');
        $tester->update(['name' => self::NAME]);
        $entry = $this->world->entry($tester);
        $attempt = $this->walked($entry, $tester);
        $this->judge($tester, $attempt, 1, 1, 'fail', ['happened' => self::NOTE]);
        $evidence = (string) $this->upload($tester, $attempt, self::png(30, 20), ['round' => 1, 'step' => 1])->json('evidence.id');
        $defect = ['title' => self::NOTE, 'attempt_id' => $attempt, 'round' => 1, 'step' => 1];
        $key = (string) $this->as($tester, 'POST', '/projects/TST/defects', $defect)->json('defect.key');
        $this->as($tester, 'POST', "/attempts/{$attempt}/finish", ['note' => self::NOTE])->assertOk();
        $case = (string) DB::table('cases')->where('id', $entry->case_id)->value('key');
        $this->as($tester, 'POST', "/cases/{$case}/messages", ['kind' => 'question', 'body' => self::NOTE])->assertCreated();
        $this->as($this->world->lead(), 'POST', '/cycles/TST-R1/moves', ['to' => 'closed', 'reason' => self::NOTE])->assertSuccessful();
        $of = ['entry' => $entry->id, 'attempt' => $attempt, 'evidence' => $evidence, 'defect' => $key, 'case' => $case];
        $this->ids = [...$this->ids, ...$of, 'person' => $tester->id];
        $reader = $this->world->person('looks', Role::Reader);

        [$before, $found] = $this->finds($reader);
        self::assertNotSame([], $before, 'readers see them where the project says nothing');
        self::assertGreaterThan(60, $found);
        $this->as($this->admin, 'PATCH', '/projects/TST/access', ['readers_see_evidence' => false])
            ->assertOk()
            ->assertJsonPath('policies', [
                'readers_see_evidence' => false,
                'testers_write_cases' => true,
                'second_factor_required' => false,
            ]);
        [$leaks, $still] = $this->finds($reader);
        self::assertSame([], $leaks);
        self::assertGreaterThan(35, $still, 'what is left to a reader is there');
        $this->as($reader, 'GET', '/cycles/TST-R1')->assertOk()->assertSee('A tester');
        $this->as($reader, 'GET', "/attempts/{$attempt}")->assertForbidden();
        $this->as($this->world->person('mends', Role::Developer), 'GET', "/attempts/{$attempt}")
            ->assertOk()
            ->assertSee(self::NAME);
    }

    public function test_testers_write_nothing_in_a_casebook_that_is_the_leads_alone(): void
    {
        $this->spec = self::description();
        $this->ids = $this->everything($this->world);
        $tester = $this->world->person('tester');
        $this->as($this->admin, 'PATCH', '/projects/TST/access', ['testers_write_cases' => false])->assertOk();
        $written = [];
        foreach ($this->operations(['post', 'put', 'patch', 'delete']) as [$method, $path, $operation]) {
            if (Permission::WriteCases !== $this->needed($method, $path)) {
                continue;
            }
            $body = $this->body($path) ?? $this->plausible($operation);
            $kept = $this->everythingKept();
            self::assertSame(403, $this->as($tester, $method, $this->real($path), $body)->getStatusCode(), "{$method} {$path}");
            self::assertSame($kept, $this->everythingKept(), "{$method} {$path}");
            $written[] = $path;
        }
        self::assertGreaterThan(25, count($written));
        $this->as($tester, 'GET', '/projects/TST/casebook')->assertOk()->assertJsonPath('may_write', false);
        $may = (array) $this->as($tester, 'GET', '/session')->json('projects.0.may');
        self::assertContains('record', $may);
        self::assertNotContains('write_cases', $may);
        $this->as($this->world->lead(), 'POST', '/projects/TST/folders', ['name' => 'Autumn'])->assertSuccessful();
    }

    public function test_nobody_comes_into_a_project_that_asks_for_a_second_factor_without_one(): void
    {
        $this->spec = self::description();
        $this->ids = $this->everything($this->world);
        $this->as($this->admin, 'PATCH', '/projects/TST/access', ['second_factor_required' => true])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['second_factor_required']]);
        $this->admin->forceFill(['totp_confirmed_at' => Carbon::now()])->save();
        $this->as($this->admin, 'PATCH', '/projects/TST/access', ['second_factor_required' => true])
            ->assertOk()
            ->assertJsonPath('without_second_factor', DB::table('memberships')->count() - 1);
        $lead = $this->world->lead();
        $other = $this->world->person('other');
        $kept = $this->everythingKept();
        $refused = 0;
        foreach ($this->operations(['get', 'post', 'put', 'patch', 'delete']) as [$method, $path, $operation]) {
            // A tracker outside is no person: its signature is looked at.
            if (1 !== preg_match('/\{(?!id\}|session\}|walked\}|connection\})/', $path)) {
                continue;
            }
            $answer = $this->as($lead, $method, $this->real($path), $this->body($path) ?? $this->plausible($operation));
            self::assertSame('urn:lucid-step:problem:second-factor-missing', $answer->json('type'), "{$method} {$path}");
            $refused++;
        }
        self::assertGreaterThan(190, $refused);
        self::assertSame($kept, $this->everythingKept());
        $this->as($lead, 'GET', '/session')->assertOk()->assertJsonPath('projects.0.lacks_second_factor', true);
        $lead->forceFill(['totp_confirmed_at' => Carbon::now()])->save();
        $this->as($lead->refresh(), 'GET', '/projects/TST/casebook')->assertOk();
        $this->as($lead, 'GET', '/session')->assertJsonPath('projects.0.lacks_second_factor', false);
        $this->as($other, 'GET', '/projects/TST')->assertForbidden();
        $log = (array) $this->as($this->admin, 'GET', '/projects/TST/setup-log')->json('items');
        self::assertContains('Access “A second factor is needed”: on', array_merge(...array_column($log, 'lines')));
    }

    public function test_a_second_factor_of_one_project_is_not_passed_by_through_another(): void
    {
        $this->world->project->update(['access' => ['second_factor_required' => true]]);
        $world = new \LucidStep\Tests\Support\World('OTH');
        $lead = $world->lead();
        DB::table('memberships')->insert([
            'id' => \Illuminate\Support\Str::uuid7(),
            'project_id' => $this->world->project->id,
            'user_id' => $lead->id,
            'role' => 'lead',
        ]);
        $entry = $world->entry($lead);
        $key = (string) DB::table('cases')->where('id', $entry->case_id)->value('key');
        $copy = ['act' => 'copy', 'filter' => ['q' => $key], 'changes' => ['project' => 'TST']];
        $this->as($lead, 'POST', '/projects/OTH/case-acts', $copy)->assertForbidden();
    }

    /**
     * @return array{list<string>, int} the addresses at which a reader finds what is not for them, and how many answered
     */
    private function finds(User $reader): array
    {
        $found = [];
        $answered = 0;
        foreach ($this->operations(['get']) as [$method, $path]) {
            $answer = $this->as($reader, $method, $this->real($path));
            $answered += 200 === $answer->getStatusCode() ? 1 : 0;
            $said = (string) $answer->baseResponse->getContent();
            $shows = str_contains($said, self::NAME) || str_contains($said, self::NOTE);
            if ($shows || (200 === $answer->getStatusCode() && str_contains($path, '{evidence}'))) {
                $found[] = $path;
            }
        }

        return [$found, $answered];
    }

    private function needed(string $method, string $path): ?Permission
    {
        $found = array_filter(
            Route::getRoutes()->getRoutes(),
            static fn(Path $r): bool => "api/v1{$path}" === $r->uri() && \in_array($method, $r->methods(), true),
        );
        $route = array_values($found)[0] ?? null;

        return null === $route ? null : RouteAttribute::of($route, Needs::class)?->permission;
    }
}
