<?php

declare(strict_types=1);

namespace LucidStep\App\Actions\Cycles;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Http\Resources\AttemptSummary;
use LucidStep\App\Http\Resources\CycleBoard;
use LucidStep\App\Http\Resources\CycleSummary;
use LucidStep\App\Http\Resources\EntryDetail;
use LucidStep\App\Http\Resources\EntryLine;
use LucidStep\App\Http\Resources\LinkedDefect;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\DefectLink;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;

/**
 * Reads cycles for their boards: a fixed number of queries, however many entries.
 */
final readonly class ReadBoard
{
    public const WITH = ['case', 'configuration', 'assignee', 'retestBy', 'openAttempt.tester'];

    public function __construct(private ReadCycle $read)
    {
    }

    /**
     * @return list<CycleSummary>
     */
    public function cycles(Project $project): array
    {
        $cycles = Cycle::query()->where('project_id', $project->id)->with('build')->orderByDesc('ends_on')->orderBy('id')->get();
        $counts = $this->counts(array_values($cycles->modelKeys()));

        return array_values($cycles->map(static fn (Cycle $c): CycleSummary => CycleSummary::from($c, $counts[$c->id] ?? []))->all());
    }

    public function board(Cycle $cycle, User $user): CycleBoard
    {
        $cycle->load('build');
        $view = $this->read->view($cycle);
        $entries = Entry::query()->where('cycle_id', $cycle->id)->with(self::WITH)->orderBy('position')->get();

        return new CycleBoard(
            CycleSummary::from($cycle, $this->counts([$cycle->id])[$cycle->id] ?? []),
            array_values($entries->map(static fn (Entry $e): EntryLine => EntryLine::from($e, $view->readiness($e->id)))->all()),
            'released' === $cycle->state ? $view->next($user->id)?->id : null,
        );
    }

    public function entry(Entry $entry): EntryDetail
    {
        $entry->load('cycle.build', ...self::WITH);
        $attempts = Attempt::query()->where('entry_id', $entry->id)->with('tester', 'build', 'configuration')->orderByDesc('number')->get();
        $links = DefectLink::query()->where('entry_id', $entry->id)->with('defect')->orderBy('created_at')->get()->unique('defect_id');

        return new EntryDetail(
            EntryLine::from($entry, $this->read->view($entry->cycle)->readiness($entry->id)),
            CycleSummary::from($entry->cycle, $this->counts([$entry->cycle_id])[$entry->cycle_id] ?? []),
            array_values($attempts->map(AttemptSummary::from(...))->all()),
            array_values($links->map(LinkedDefect::from(...))->all()),
        );
    }

    /**
     * Entries by what they show.
     *
     * @param  list<string>  $cycles
     *
     * @return array<string, array<string, int>> by cycle id
     */
    public function counts(array $cycles): array
    {
        $counts = [];
        foreach (DB::table('entries')->whereIn('cycle_id', $cycles)->groupBy('cycle_id', 'shows')->get(['cycle_id', 'shows', DB::raw('count(*) as n')]) as $row) {
            $counts[$row->cycle_id][$row->shows] = (int) $row->n;
        }

        return $counts;
    }
}
