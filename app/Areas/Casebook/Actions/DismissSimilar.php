<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Changes\PublishChange;

/**
 * Cases that differ on purpose: no two of them are pointed out as likely doubles any more, whatever becomes of their words.
 */
final readonly class DismissSimilar
{
    /** More cases than that are no group of doubles. */
    public const MOST = 100;

    public function __construct(private PublishChange $announce) {}

    /**
     * @param  list<string>  $cases ids
     * @param  bool  $differ false takes it back
     */
    public function __invoke(Project $project, array $cases, bool $differ = true): void
    {
        $ids = DB::table('cases')->where('project_id', $project->id)->whereIn('id', $cases)->orderBy('id')->pluck('id')->all();
        if (\count($ids) < \count(array_unique($cases)) || \count($ids) < 2) {
            throw ValidationException::withMessages(['cases' => 'Name two cases of this project or more.']);
        }
        if (!$differ) {
            DB::table('case_doubles')->whereIn('case_id', $ids)->whereIn('other_id', $ids)->where('score', 0)->delete();
            DB::table('case_doubles')
                ->whereIn('case_id', $ids)
                ->whereIn('other_id', $ids)
                ->update(['set_aside' => false]);
        } else {
            DB::table('case_doubles')
                ->whereIn('case_id', $ids)
                ->whereIn('other_id', $ids)
                ->update(['set_aside' => true]);
            foreach ($ids as $at => $one) {
                // Those that are not alike today may be tomorrow.
                DB::table('case_doubles')->insertOrIgnore(
                    array_map(
                        static fn(mixed $other): array => ['case_id' => $one, 'other_id' => $other, 'score' => 0, 'set_aside' => true],
                        \array_slice($ids, $at + 1),
                    ),
                );
            }
        }
        ($this->announce)($project->id, 'case', $project->id);
    }
}
