<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\BulkAct;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;

/**
 * Keeps what many cases were before an act, so that it can be taken back as one.
 */
final class RememberBulkEdit
{
    /**
     * @param  array<string, array{revision: int, before: array<string, mixed>, made?: bool}>  $cases by id
     * @param  list<string>  $folders ids of those that were made for them, the outer ones first
     * @param  list<string>  $suites ids of those that came with them
     *
     * @return string the id of the act
     */
    public function __invoke(Project $project, User $user, string $title, array $cases, array $folders = [], array $suites = []): string
    {
        $act = BulkAct::query()->create([
            'project_id' => $project->id,
            'actor_id' => $user->id,
            'subject' => 'case',
            'title' => $title,
            'folders' => $folders,
            'suites' => $suites,
            'created_at' => Carbon::now(),
        ]);
        $rows = [];
        foreach ($cases as $id => $case) {
            $rows[] = [
                'act_id' => $act->id,
                'case_id' => $id,
                'made' => $case['made'] ?? false,
                'revision' => $case['revision'],
                'before' => json_encode((object) $case['before'], \JSON_THROW_ON_ERROR),
            ];
        }
        foreach (array_chunk($rows, 1000) as $some) {
            DB::table('bulk_act_cases')->insert($some);
        }

        return $act->id;
    }
}
