<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\People;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\ApiOperations;
use LucidStep\Tests\Support\Everything;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\FittingBodies;
use LucidStep\Tests\Support\Walks;

/**
 * What is archived is read and not written, by whatever way: made from the description of the API, so that a new way is no leak.
 */
final class ArchivedTest extends FeatureTestCase
{
    use ApiOperations;
    use Everything;
    use FittingBodies;
    use Walks;

    /** What belongs to the person and not to the project: what they have seen, their notes, what they look for, where they are. */
    private const THEIR_OWN = [
        'POST /projects/{project}/case-exports',
        'POST /projects/{project}/filters',
        'POST /projects/{project}/today-seen',
        'PUT /projects/{project}/scratch',
        'PUT /cases/{case}/presence',
    ];

    public function test_no_write_of_the_api_changes_anything_of_an_archived_project(): void
    {
        $this->spec = self::description();
        $this->ids = $this->everything($this->world);
        $admin = $this->world->person('admin', Role::Admin);
        $this->ids['person'] = $this->world->person('somebody else')->id;
        $this->world->project->update(['archived_at' => Carbon::now()]);
        // Whoever looks first asks for their role as a reader, in the same process.
        $this->looks = false;
        $faults = [];
        $refused = 0;
        foreach ($this->operations(['post', 'put', 'patch', 'delete']) as [$method, $path, $operation]) {
            $own = \in_array("{$method} {$path}", self::THEIR_OWN, true);
            if ($own || 1 !== preg_match('/\{(?!id\}|session\})/', $path)) {
                continue;
            }
            $before = $this->everythingKept();
            DB::beginTransaction();
            $answer = $this->as($admin, $method, $this->real($path), $this->body($path) ?? $this->plausible($operation));
            $changed = $this->everythingKept() !== $before;
            DB::rollBack();
            $status = $answer->getStatusCode();
            $isArchived = 'urn:lucid-step:problem:archived' === $answer->json('type');
            $refused += $isArchived ? 1 : 0;
            // Previews and checks work nothing into the project.
            if ($changed || 500 === $status) {
                $faults[] = "{$method} {$path}: {$status}" . ($changed ? ', and something changed' : '');
            }
        }
        self::assertSame([], $faults);
        self::assertGreaterThan(110, $refused);
    }

    /**
     * What was walked without the server lies in no address of a project, and whoever left has no part in it any more.
     */
    public function test_what_a_device_brings_late_waits_there_also_of_somebody_who_left(): void
    {
        $me = $this->world->person();
        [$begun, $fresh] = [$this->world->entry($me), $this->world->entry($me)];
        $attempt = $this->walked($begun, $me);
        $body = ['id' => (string) Str::uuid7(), 'case_version_id' => $fresh->case_version_id];
        $verdict = ['round' => 1, 'step' => 1, 'verdict' => 'pass'];
        $send = fn(): array => [
            $this->as($me, 'POST', "/entries/{$fresh->id}/device-attempts", $body)->json('type'),
            $this->as($me, 'POST', "/attempts/{$attempt}/verdicts", $verdict)->json('type'),
        ];
        $this->world->project->update(['archived_at' => Carbon::now()]);
        $archived = array_fill(0, 2, 'urn:lucid-step:problem:archived');
        foreach (['who has part in it', 'who left'] as $who) {
            self::assertSame($archived, $send(), $who);
            DB::table('memberships')->where('user_id', $me->id)->delete();
        }
        self::assertSame(1, DB::table('attempts')->count());
        $this->world->project->update(['archived_at' => null]);
        $this->as($me, 'POST', "/entries/{$fresh->id}/device-attempts", $body)->assertSuccessful();
    }

    public function test_every_reading_is_as_before(): void
    {
        $this->spec = self::description();
        $this->ids = $this->everything($this->world);
        $admin = $this->world->person('admin', Role::Admin);
        $read = function () use ($admin): array {
            $statuses = [];
            foreach ($this->operations(['get']) as [$method, $path]) {
                $statuses[$path] = $this->as($admin, $method, $this->real($path))->getStatusCode();
            }

            return $statuses;
        };
        $before = $read();
        $this->world->project->update(['archived_at' => Carbon::now()]);
        self::assertSame($before, $read());
    }
}
