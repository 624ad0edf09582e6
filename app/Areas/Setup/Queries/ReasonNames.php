<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Queries;

use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Models\Project;
use LucidStep\Core\Verdict\Verdict;

/**
 * The short reasons behind verdicts that a project has, or had: a device may know an older list.
 */
final class ReasonNames
{
    /**
     * @param  string  $reason as somebody gave it; empty: none
     *
     * @throws ValidationException when the project never had this reason behind the verdict
     * @return string as the list has it
     */
    public static function listed(string $projectId, Verdict $verdict, string $reason): string
    {
        $of = match ($verdict) {
            Verdict::Pass => ['reason_pass', 'a pass'],
            Verdict::Fail => ['reason_fail', 'a fail'],
            Verdict::Blocked => ['reason_blocked', 'a block'],
            Verdict::NotApplicable => ['reason_not_applicable', 'not applicable'],
            default => null,
        };
        if ('' === $reason || null === $of) {
            return $reason;
        }
        [$list, $word] = $of;
        $project = Project::query()->findOrFail($projectId);
        $now = array_column((new ProjectLists($project))->items($list), 'name');
        $found = self::find($now, $reason) ?? self::find(self::earlier($project, $list), $reason);
        if (null === $found) {
            throw ValidationException::withMessages([
                'reason' => "“{$reason}” is none of the project's reasons behind {$word}: " . implode(', ', $now) . '.',
            ]);
        }

        return $found;
    }

    /**
     * @param  list<string>  $names
     */
    private static function find(array $names, string $reason): ?string
    {
        foreach ($names as $name) {
            if (mb_strtolower($name) === mb_strtolower($reason)) {
                return $name;
            }
        }

        return null;
    }

    /**
     * @return list<string> what the list was given and what it had since
     */
    private static function earlier(Project $project, string $list): array
    {
        $had = DB::table('setup_log')
            ->where('project_id', $project->id)
            ->where('subject', 'list_items')
            ->where('key', 'like', "{$list}/%")
            ->whereNotNull('old')
            ->selectRaw("old ->> 'name' as name")
            ->pluck('name');

        return [...array_column(ProjectLists::given($list), 'name'), ...array_values($had->map(strval(...))->all())];
    }
}
