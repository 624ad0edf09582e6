<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Today;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Changes\ReadChanges;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * These need committed rows, so they clean up themselves.
 */
final class ChangeFeedTest extends FeatureTestCase
{
    /** @var list<string> */
    protected array $connectionsToTransact = [];

    protected function tearDown(): void
    {
        DB::table('entries')->delete();
        DB::table('cycles')->delete();
        DB::table('cases')->delete();
        DB::table('projects')->delete();
        DB::table('users')->delete();
        parent::tearDown();
    }

    public function test_changes_are_told_once_in_order_and_nothing_new_is_304(): void
    {
        $me = $this->world->person();
        $start = $this->as($me, 'GET', '/projects/TST/changes')->assertOk()->assertJsonCount(0, 'changes')->json('cursor');
        $announce = new PublishChange();
        $announce($this->world->project->id, 'entry', $this->world->project->id, $this->world->cycle->id);
        $announce($this->world->project->id, 'defect', $this->world->project->id);
        $feed = $this->as($me, 'GET', "/projects/TST/changes?after={$start}")->assertOk();
        self::assertSame(['entry', 'defect'], array_column((array) $feed->json('changes'), 'topic'));
        $this->as($me, 'GET', "/projects/TST/changes?after={$feed->json('cursor')}")->assertStatus(304);
        $this->as($me, 'GET', '/projects/TST/changes?after=nonsense')->assertOk()->assertJsonCount(0, 'changes');
    }

    public function test_what_is_committed_late_is_not_skipped(): void
    {
        $read = new ReadChanges();
        $project = $this->world->project;
        $cursor = $read($project, null)?->cursor;
        $slow = new \PDO(
            sprintf(
                'pgsql:host=%s;port=%s;dbname=%s',
                ...array_map(static fn(string $k): string => (string) config("database.connections.pgsql.{$k}"), [
                    'host',
                    'port',
                    'database',
                ]),
            ),
            (string) config('database.connections.pgsql.username'),
            (string) config('database.connections.pgsql.password'),
        );
        $slow->beginTransaction();
        $slow->exec("insert into changes (project_id, topic, subject_id) values ('{$project->id}', 'case', '{$project->id}')");
        (new PublishChange())($project->id, 'entry', $project->id);
        self::assertNull($read($project, $cursor), 'the quick one waits for the slow one');
        $slow->commit();
        $feed = (new ReadChanges())($project, $cursor);
        self::assertSame(['case', 'entry'], array_map(static fn($c): string => $c->topic, $feed->changes ?? []));
    }

    public function test_another_projects_changes_stay_there(): void
    {
        $cursor = (new ReadChanges())($this->world->project, null)?->cursor;
        $other = Project::query()->create(['code' => 'OTH', 'name' => 'Other', 'policies' => []]);
        (new PublishChange())($other->id, 'entry', $other->id);
        self::assertNull((new ReadChanges())($this->world->project, $cursor));
    }
}
