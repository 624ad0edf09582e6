<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Actions;

use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Setup\Exceptions\StillInSetup;
use LucidStep\App\Areas\Setup\Queries\SetupWords;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Problems\AlreadyDone;
use LucidStep\App\Support\Record\Removals;
use LucidStep\App\Support\Record\TakeOut;

/**
 * Takes out of the log of the setup what people wrote in an act and what does not stand in the setup any more, wherever the log
 * has it. What was done, by whom and when stays, and who took the words out.
 */
final readonly class RemoveSetupWords
{
    public function __construct(private SetupWords $words) {}

    /**
     * @param  int  $line of the log, by which the act is known
     *
     * @throws StillInSetup when all that was written stands in the setup now
     * @throws AlreadyDone  when nothing was written, or it was taken out before
     */
    public function __invoke(Project $project, int $line, User $by, string $reason): void
    {
        Project::query()->lockForUpdate()->findOrFail($project->id);
        $act =
            DB::table('setup_log')->where('project_id', $project->id)->where('id', $line)->value('act') ??
            throw new ModelNotFoundException();
        $written = $this->words->ofAct($project, (string) $act);
        if ([] === $written) {
            throw AlreadyDone::removed();
        }
        $texts = array_values(array_diff($written, $this->words->thatStand($project)));
        if ([] === $texts) {
            throw StillInSetup::words($written[0]);
        }
        $since = null;
        foreach ($this->words->linesWith($project, $texts) as $id => $at) {
            Removals::add($project->id, null, 'setup_log', (string) $id, $reason, $by);
            $since ??= Carbon::parse($at);
        }
        DB::statement('select lucid_remove_from_setup_log(?, ?::jsonb)', [
            $project->id,
            json_encode($texts, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE),
        ]);
        TakeOut::told($project->id, $texts);
        $people = DB::table('setup_log')->where('project_id', $project->id)->whereNotNull('actor_id')->distinct()->pluck('actor_id');
        TakeOut::storedAnswers(array_values($people->map(strval(...))->all()), $since ?? Carbon::createFromTimestamp(0), $texts);
    }
}
