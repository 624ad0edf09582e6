<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Support\Carbon;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectChange;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Keys\NextKey;
use LucidStep\App\Support\Secrets\MaskSecrets;
use LucidStep\Core\Defects\DefectState;

/**
 * Files a defect, linked to what it came from.
 */
final readonly class FileDefect
{
    public function __construct(private NextKey $nextKey, private LinkDefect $link, private PublishChange $announce) {}

    /**
     * @param  array{id?: ?string, title: string, body?: ?string, expected?: ?string, actual?: ?string, severity?: ?string}  $fields
     */
    public function __invoke(
        Project $project,
        User $user,
        array $fields,
        ?Attempt $from = null,
        ?int $round = null,
        ?int $step = null,
    ): Defect {
        $fields = [
            ...$fields,
            ...MaskSecrets::hide($from, array_intersect_key($fields, array_flip(['title', 'body', 'expected', 'actual']))),
        ];
        $number = $this->nextKey->reserve($project, 'defect');
        $defect = new Defect([
            'project_id' => $project->id,
            'number' => $number,
            'key' => "{$project->code}-D{$number}",
            'title' => trim($fields['title']),
            'body' => trim((string) ($fields['body'] ?? '')),
            'expected' => trim((string) ($fields['expected'] ?? '')),
            'actual' => trim((string) ($fields['actual'] ?? '')),
            'severity' => $fields['severity'] ?? 'major',
            'state' => DefectState::New,
            'reporter_id' => $user->id,
            'case_id' => $from?->loadMissing('entry')->entry->case_id,
            'build_id' => $from?->build_id,
            'open_ms' => 0,
            'open_since' => Carbon::now(),
            'version' => 1,
        ]);
        if (isset($fields['id'])) {
            $defect->id = $fields['id'];
        }
        $defect->save();
        DefectChange::query()->create([
            'defect_id' => $defect->id,
            'actor_id' => $user->id,
            'from_state' => null,
            'to_state' => DefectState::New,
            'created_at' => Carbon::now(),
        ]);
        if (null !== $from) {
            ($this->link)($defect, $user, $from, $round, $step);
        }
        ($this->announce)($project->id, 'defect', $defect->id);

        return $defect;
    }
}
