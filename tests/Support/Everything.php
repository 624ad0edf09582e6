<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Models\Invitation;
use LucidStep\App\Models\LateCommand;
use LucidStep\Core\Access\Role;

/**
 * A project with one of everything, for tests that go through all addresses.
 */
trait Everything
{
    /**
     * @return array<string, string> what stands in an address in place of each name
     */
    protected function everything(World $world): array
    {
        $code = $world->project->code;
        $project = "/projects/{$code}";
        [$author, $lead] = [$world->person(), $world->lead()];
        $entry = $world->entry($author);
        $attempt = $this->as($author, 'POST', "/entries/{$entry->id}/attempts")
            ->assertCreated()
            ->json('attempt.id');
        $evidence = (string) Str::uuid7();
        $this->as($author, 'POST', "/attempts/{$attempt}/evidence", [
            'id' => $evidence,
            'link' => 'https://status.example.test/quay',
            'round' => 1,
            'step' => 1,
        ])->assertCreated();
        $made = fn(string $path, array $body, string $field): string => (string) $this->as($author, 'POST', $path, $body)
            ->assertSuccessful()
            ->json($field);
        $ids = [
            'project' => $code,
            'cycle' => "{$code}-R1",
            'case' => "{$code}-C1",
            'other' => "{$code}-C1",
            'entry' => $entry->id,
            'walked' => $entry->id,
            'attempt' => (string) $attempt,
            'evidence' => $evidence,
            'defect' => $made("{$project}/defects", ['title' => 'Theirs'], 'defect.key'),
            'comment' => $made("/defects/{$code}-D1/comments", ['text' => 'x'], 'comments.0.id'),
            'defectFile' => $made(
                "/defects/{$code}-D1/files",
                ['file' => UploadedFile::fake()->createWithContent('a.log', 'theirs')],
                'id',
            ),
            'charter' => $made("{$project}/charters", ['title' => 'Theirs'], 'charter.key'),
            'testSession' => $made("/charters/{$code}-S1/sessions", ['id' => (string) Str::uuid7()], 'id'),
            'requirement' => $made("{$project}/requirements", ['title' => 'Theirs'], 'key'),
            'requirementImport' => $made("{$project}/requirement-imports", ['text' => 'Theirs too', 'apply' => true], 'import.id'),
            'folder' => $made("{$project}/folders", ['name' => 'Theirs'], 'id'),
            'routine' => $made("{$project}/routines", ['name' => 'Theirs', 'steps' => [['action' => 'x']]], 'routine.id'),
            'table' => $made("{$project}/data-tables", ['name' => 'Theirs', 'text' => "a\n1"], 'table.id'),
            'suite' => $made("{$project}/suites", ['name' => 'Theirs', 'kind' => 'picked'], 'suite.id'),
            'filter' => $made("{$project}/filters", ['name' => 'Theirs', 'filter' => ['state' => 'draft']], 'id'),
            'message' => $made("/cases/{$code}-C1/messages", ['kind' => 'question', 'body' => 'x'], 'id'),
            'act' => $made(
                "{$project}/case-acts",
                ['act' => 'edit', 'filter' => ['q' => 'case'], 'changes' => ['priority' => 'low']],
                'act_id',
            ),
            'defectAct' => $made("{$project}/defect-acts", ['filter' => ['q' => 'theirs'], 'changes' => ['severity' => 'minor']], 'act_id'),
            'export' => $made("{$project}/case-exports", ['format' => 'csv'], 'id'),
            'import' => $made(
                "{$project}/case-imports",
                ['file' => UploadedFile::fake()->createWithContent('c.csv', "title,action\nA,b")],
                'id',
            ),
            'sha256' => str_repeat('a', 64),
            'id' => $world->project->id,
            'session' => str_repeat('0', 32),
        ];
        $ids['sessionComment'] = $made("/test-sessions/{$ids['testSession']}/comments", ['text' => 'Theirs'], 'comments.0.id');
        $ids['sessionLine'] = $made(
            "/test-sessions/{$ids['testSession']}/lines",
            ['id' => (string) Str::uuid7(), 'kind' => 'note', 'words' => 'Theirs'],
            'id',
        );
        $admin = $world->person('the admin', Role::Admin);
        // An address that is not called: whatever waits for it stays.
        $this->as($admin, 'PATCH', "{$project}/tracker", ['address' => 'http://169.254.1.1', 'sends_each' => false])->assertSuccessful();
        $this->as($lead, 'POST', "/defects/{$code}-D1/tracker-calls")->assertSuccessful();
        $ids['defectChange'] = (string) DB::table('defect_changes')
            ->whereIn('defect_id', DB::table('defects')->where('project_id', $world->project->id)->select('id'))
            ->value('id');
        $ids['connection'] = (string) DB::table('tracker_connections')->where('project_id', $world->project->id)->value('id');
        $ids['call'] = (string) DB::table('tracker_calls')->where('project_id', $world->project->id)->value('id');
        $this->as($admin, 'POST', "{$project}/invitations", ['text' => 'theirs@example.test', 'role' => 'reader'])->assertSuccessful();
        $ids['invitation'] = Invitation::query()->where('project_id', $world->project->id)->firstOrFail()->id;
        $this->as($lead, 'PUT', "{$project}/axes", [
            'axes' => [['name' => 'Device', 'values' => [['name' => 'Phone']]]],
        ])->assertSuccessful();
        $setup = $this->as($lead, 'POST', "{$project}/configurations", ['how' => 'pairs'])->assertSuccessful();
        $configuration = (string) $setup->json('configurations.0.id');

        return $ids + [
            'configuration' => $configuration,
            'build' => $world->build->id,
            'person' => $author->id,
            'milestone' => (string) $this->as($lead, 'POST', "{$project}/milestones", ['name' => 'Theirs', 'due_on' => '2027-01-01'])->json(
                'id',
            ),
            'release' => (string) $this->as($lead, 'POST', "{$project}/releases", ['name' => 'Theirs'])->json('releases.0.id'),
            'addition' => (string) $this->as($lead, 'POST', "/cycles/{$code}-R1/entries", [
                'picks' => ['cases' => [$entry->case_id], 'configurations' => [$configuration]],
            ])->json('id'),
            'planAct' => (string) $this->as($lead, 'POST', "/cycles/{$code}-R1/entry-acts", [
                'act' => 'assign',
                'ids' => [$entry->id],
                'changes' => ['assignee_id' => $lead->id],
            ])->json('act_id'),
            'line' => (string) DB::table('cycle_log')->max('id'),
            'setupAct' => (string) DB::table('setup_log')->where('project_id', $world->project->id)->max('id'),
            'lateCommand' => LateCommand::query()->create([
                'project_id' => $world->project->id,
                'attempt_id' => $attempt,
                'actor_id' => $author->id,
                'kind' => 'note_written',
                'payload' => ['round' => 1, 'step' => 1, 'note' => 'x'],
                'why' => 'x',
                'received_at' => now(),
            ])->id,
        ];
    }
}
