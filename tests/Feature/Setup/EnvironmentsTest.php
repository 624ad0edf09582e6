<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Setup;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\World;
use Symfony\Component\HttpFoundation\Response;

/**
 * Environments: a list of the project, chosen in cycles and attempts.
 */
final class EnvironmentsTest extends FeatureTestCase
{
    private User $lead;

    protected function setUp(): void
    {
        parent::setUp();
        $this->lead = $this->world->lead();
    }

    public function test_a_lead_lists_them_with_what_is_deployed_and_everybody_reads_them(): void
    {
        $put = $this->save([
            [
                'name' => ' Staging ',
                'address' => 'https://staging.example/booking',
                'build_id' => $this->world->build->id,
                'notes' => 'At night only',
            ],
            ['name' => 'Quay kiosk'],
        ])->assertOk();
        $build = ['id' => $this->world->build->id, 'name' => $this->world->build->name];
        [$staging, $kiosk] = $put->json('environments');
        self::assertSame(
            [['Staging', 'https://staging.example/booking', $build, 'At night only'], ['Quay kiosk', '', null, '']],
            array_map(fn(array $e): array => [$e['name'], $e['address'], $e['build'], $e['notes']], [$staging, $kiosk]),
        );
        $reader = $this->world->person('reader', Role::Reader);
        $this->as($reader, 'GET', '/projects/TST/planning-setup')->assertJsonPath('environments', [$staging, $kiosk]);
        // They keep who they are through another order and exchanged names.
        $this->save([['id' => $kiosk['id'], 'name' => 'Staging'], ['id' => $staging['id'], 'name' => 'Quay kiosk']])
            ->assertJsonPath('environments.0.id', $kiosk['id'])
            ->assertJsonPath('environments.0.name', 'Staging')
            ->assertJsonPath('environments.1.address', '');
        $this->as($this->world->person(), 'PUT', '/projects/TST/environments', ['environments' => []])->assertForbidden();
        // A build that is deployed somewhere stays.
        $this->save([['name' => 'Staging', 'build_id' => $this->world->build->id]])->assertOk();
        $this->as($this->lead, 'DELETE', "/builds/{$this->world->build->id}")
            ->assertConflict()
            ->assertJsonPath('type', 'urn:lucid-step:problem:in-use');
    }

    public function test_what_cannot_be_is_refused_by_its_field_and_nothing_changes(): void
    {
        $good = ['name' => 'Staging', 'address' => 'https://staging.example'];
        $before = $this->save([$good])
            ->assertOk()
            ->json('environments');
        $other = new World('OTH');
        $theirs = $this->as($other->lead(), 'PUT', '/projects/OTH/environments', ['environments' => [$good]])
            ->assertOk()
            ->json('environments.0.id');
        $refused = [
            'environments.1.address' => [
                [$good, ['name' => 'Own', 'address' => config('app.url') . '/TST/today']],
                [$good, ['name' => 'File', 'address' => 'file:///etc/passwd']],
                [$good, ['name' => 'Words', 'address' => 'the big server']],
            ],
            'environments.1.name' => [[$good, ['name' => 'STAGING ']], [$good, ['name' => '', 'address' => 'https://x.example']]],
            'environments.1.build_id' => [[$good, ['name' => 'Other', 'build_id' => $other->build->id]]],
            'environments.1.id' => [
                [$good, ['name' => 'Theirs', 'id' => $theirs]],
                [['id' => $before[0]['id'], ...$good], ['name' => 'Twice', 'id' => $before[0]['id']]],
            ],
            'environments' => [array_fill(0, 21, $good)],
        ];
        foreach ($refused as $field => $lists) {
            foreach ($lists as $list) {
                self::assertSame([$field], array_keys($this->save($list)->assertUnprocessable()->json('errors')));
            }
        }
        $this->as($this->lead, 'GET', '/projects/TST/planning-setup')->assertJsonPath('environments', $before);
    }

    public function test_a_cycle_is_planned_for_one_and_its_attempts_say_where_they_were_walked(): void
    {
        [$staging, $kiosk] = $this->save([['name' => 'Staging'], ['name' => 'Quay kiosk']])->json('environments');
        $cycle = fn(?string $id): TestResponse => $this->as($this->lead, 'PATCH', '/cycles/TST-R1', ['environment_id' => $id]);
        $cycle((string) Str::uuid7())
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['environment_id']]);
        $cycle($staging['id'])->assertOk();
        $this->as($this->lead, 'GET', '/cycles/TST-R1/log')->assertJsonPath('0.text', 'Changed the environment');
        $me = $this->world->person();
        $packed = $this->world->entry($me);
        $this->as($me, 'GET', '/projects/TST/walk-pack')->assertJsonPath('entries.0.walk.attempt.named_environment', [
            'id' => $staging['id'],
            'name' => 'Staging',
        ]);
        $attempt = (string) $this->as($me, 'POST', "/entries/{$packed->id}/attempts", [])
            ->assertCreated()
            ->json('attempt.id');
        $path = "/attempts/{$attempt}/surroundings";
        $this->as($me, 'POST', $path, ['environment_id' => (string) Str::uuid7()])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['environment_id']]);
        // What is not said stays: the build does.
        $this->as($me, 'POST', $path, ['environment_id' => $kiosk['id'], 'environment' => 'the left one'])->assertOk();
        $this->as($me, 'POST', $path, ['environment' => 'the right one'])->assertOk();
        $this->as($me, 'GET', "/attempts/{$attempt}")
            ->assertJsonPath('attempt.named_environment', ['id' => $kiosk['id'], 'name' => 'Quay kiosk'])
            ->assertJsonPath('attempt.environment', 'the right one')
            ->assertJsonPath('attempt.build.id', $this->world->build->id);
        $this->as($me, 'POST', $path, ['build_id' => null])->assertOk();
        $this->as($me, 'GET', "/attempts/{$attempt}")->assertJsonPath('attempt.build', null);
        $draft = $this->as($me, 'GET', "/attempts/{$attempt}/defect-draft?round=1")
            ->assertOk()
            ->json('plain');
        self::assertStringContainsString("Environment: Quay kiosk, the right one\n", $draft);
        $this->as($me, 'GET', "/attempts/{$attempt}/verification")->assertJsonPath('state', 'open');
        // What a cycle is planned for, or something was walked on, stays; its name changes everywhere.
        foreach ([[$staging], [$kiosk]] as $left) {
            $this->save($left)->assertStatus(Response::HTTP_CONFLICT);
        }
        $this->save([$staging, [...$kiosk, 'name' => 'Kiosk 2']])->assertOk();
        $this->as($me, 'GET', "/attempts/{$attempt}")->assertJsonPath('attempt.named_environment.name', 'Kiosk 2');
        $cycle(null)->assertOk();
        $this->save([[...$kiosk, 'name' => 'Kiosk 2']])
            ->assertOk()
            ->assertJsonCount(1, 'environments');
        self::assertSame(1, DB::table('environments')->count());
    }

    /**
     * @param  list<array<string, mixed>>  $environments
     *
     * @return TestResponse<Response>
     */
    private function save(array $environments): TestResponse
    {
        return $this->as($this->lead, 'PUT', '/projects/TST/environments', ['environments' => $environments]);
    }
}
