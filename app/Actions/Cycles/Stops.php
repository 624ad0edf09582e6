<?php

declare(strict_types=1);

namespace LucidStep\App\Actions\Cycles;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Actions\Walk\RefreshEntry;
use LucidStep\App\Exceptions\Conflict;
use LucidStep\App\Http\Resources\RefusedEntry;
use LucidStep\App\Http\Resources\StopPreview;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;
use LucidStep\Core\Planning\Cascade;
use LucidStep\Core\Planning\Conditions;

/**
 * Blocking on: what needs the pass of a failed or blocked entry is stopped, after it was shown, and let go again when
 * none of its causes stands any more.
 */
final readonly class Stops
{
    public function __construct(private CycleLog $log)
    {
    }

    public function preview(Entry $cause): StopPreview
    {
        $ids = $this->reach($cause);
        $stopped = DB::table('entry_stops')->where('cause_id', $cause->id)->pluck('entry_id')->all();

        return new StopPreview($this->named(array_values(array_diff($ids, $stopped))), $this->named($stopped));
    }

    /**
     * @return StopPreview what is stopped now
     *
     * @throws Conflict when the entry did not fail and is not blocked, or nothing needs its pass
     */
    public function apply(Entry $cause, User $user): StopPreview
    {
        $cycle = AddEntries::open(Cycle::query()->findOrFail($cause->cycle_id));
        $cause = Entry::query()->lockForUpdate()->with('case')->findOrFail($cause->id);
        $ids = $this->reach($cause);
        if ([] === $ids) {
            throw new Conflict('nothing-to-stop', 'fail' === $cause->shows || 'blocked' === $cause->shows ? 'Nothing that is still open needs the pass of this entry.' : 'Only a failed or blocked entry stops others.');
        }
        $now = Carbon::now();
        DB::table('entry_stops')->insertOrIgnore(array_map(static fn (string $id): array => ['entry_id' => $id, 'cause_id' => $cause->id, 'actor_id' => $user->id, 'at' => $now], $ids));
        $this->show($ids);
        ($this->log)($cycle, $user, \sprintf('Stopped %d %s that need the pass of %s', \count($ids), 1 === \count($ids) ? 'entry' : 'entries', $cause->case->key));

        return $this->preview($cause);
    }

    /**
     * Lets go what no standing cause stops, after anything in the cycle changed.
     */
    public static function lift(string $cycle): void
    {
        $stops = DB::table('entry_stops')->join('entries', 'entries.id', '=', 'entry_stops.entry_id')->where('entries.cycle_id', $cycle)->get(['entry_id', 'cause_id'])->groupBy('entry_id');
        if ($stops->isEmpty()) {
            return;
        }
        $conditions = Conditions::of(ReadCycle::conditions($cycle));
        // What a cause shows by a cascade is no verdict of its own.
        $verdicts = DB::table('entries')->whereIn('id', $stops->flatten(1)->pluck('cause_id')->unique())->whereNotIn('id', $stops->keys())->pluck('shows', 'id')->all()
            + DB::table('entries')->whereIn('id', $stops->keys())->whereNotNull('last_attempt_id')->pluck('shows', 'id')->all();
        foreach ($stops as $entry => $causes) {
            $all = array_values($causes->pluck('cause_id')->all());
            $gone = array_diff($all, Cascade::standing((string) $entry, $all, $conditions, $verdicts));
            if ([] !== $gone) {
                DB::table('entry_stops')->where('entry_id', $entry)->whereIn('cause_id', $gone)->delete();
                self::renew((string) $entry);
            }
        }
    }

    /**
     * @return list<string>
     */
    private function reach(Entry $cause): array
    {
        $own = DB::table('entry_stops')->where('entry_id', $cause->id)->doesntExist() || null !== $cause->last_attempt_id;
        if (!$own || !\in_array($cause->shows, ['fail', 'blocked'], true)) {
            return [];
        }
        $open = [];
        foreach (DB::table('entries')->leftJoin('entry_stops', 'entry_stops.entry_id', '=', 'entries.id')->where('cycle_id', $cause->cycle_id)->groupBy('entries.id')->get(['entries.id', 'shows', DB::raw('count(cause_id) as stops')]) as $row) {
            $open[$row->id] = \in_array($row->shows, ['not_run', 'retest'], true) || ('blocked' === $row->shows && $row->stops > 0);
        }

        return Cascade::reach($cause->id, Conditions::of(ReadCycle::conditions($cause->cycle_id)), $open);
    }

    /**
     * @param  list<string>  $ids
     */
    private function show(array $ids): void
    {
        foreach ($ids as $id) {
            self::renew($id);
        }
    }

    private static function renew(string $id): void
    {
        app(RefreshEntry::class)(Entry::query()->lockForUpdate()->findOrFail($id));
    }

    /**
     * @param  list<string>  $ids
     *
     * @return list<RefusedEntry>
     */
    private function named(array $ids): array
    {
        return array_values(DB::table('entries')->join('cases', 'cases.id', '=', 'case_id')->leftJoin('configurations', 'configurations.id', '=', 'configuration_id')->whereIn('entries.id', $ids)->orderBy('entries.position')
            ->get(['entries.id', 'cases.key', 'cases.title', 'configurations.name'])->map(static fn (object $e): RefusedEntry => new RefusedEntry($e->id, $e->key, $e->title, (string) $e->name))->all());
    }
}
