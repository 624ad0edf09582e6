<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Cycles\Data\PlanActResult;
use LucidStep\App\Areas\Cycles\Data\RefusedEntry;
use LucidStep\App\Areas\Cycles\Queries\ReadCycle;
use LucidStep\App\Areas\Cycles\Queries\TesterLookup;
use LucidStep\App\Areas\Notices\Actions\NotifyPeople;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\PlanAct;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\Core\Planning\Condition;
use LucidStep\Core\Planning\ConditionKind;
use LucidStep\Core\Planning\Conditions;
use LucidStep\Core\Planning\LoopRefused;

/**
 * One act on entries of a cycle: assign, order, conditions, windows, remove. Each is undone as one; what was changed
 * again since is left and named.
 */
final readonly class BulkEditEntries
{
    /** What an act keeps of each entry to undo it. */
    private const KEPT = ['assignee_id', 'not_before', 'not_after', 'handover_note', 'handover_by_id'];

    public function __construct(private CycleLog $log) {}

    /**
     * @param  'assign'|'window'|'condition'|'no_condition'|'move'|'mend'|'remove'|'hand_out'  $act
     * @param  list<string>  $ids
     * @param  array<string, mixed>  $changes assign: `assignee_id`, `note`; window: `not_before`, `not_after`; condition:
     *     `needs_id`, `kind`; no_condition: `needs_id` (none: all); move: `before_id` (none: to the end); hand_out:
     *     `given` (person by entry), `order`
     *
     * @throws Conflict            when the cycle is closed
     * @throws ValidationException by field
     */
    public function __invoke(Cycle $cycle, User $user, string $act, array $ids, array $changes = []): PlanActResult
    {
        $cycle = AddEntries::open($cycle);
        $entries = DB::table('entries')
            ->where('cycle_id', $cycle->id)
            ->when('mend' !== $act, static fn($q) => $q->whereIn('id', $ids))
            ->orderBy('position')
            ->get()
            ->keyBy('id');
        if ($entries->isEmpty()) {
            throw ValidationException::withMessages(['ids' => 'None of these entries is in the cycle any more.']);
        }
        $refused = [];
        $before = $this->state($cycle, $entries->keys()->all());
        $title = match ($act) {
            'assign' => $this->assign($cycle, $user, $entries, $changes),
            'window' => $this->window($entries, $changes),
            'condition' => $this->condition($cycle, $entries, $changes),
            'no_condition' => $this->drop($entries, $changes),
            'move' => $this->move($cycle, $entries, $changes),
            'mend' => $this->mend($cycle),
            'remove' => $this->remove($entries, $refused, $before),
            'hand_out' => $this->handOut($cycle, $changes),
        };
        $after = $this->state($cycle, $entries->keys()->all());
        if ($before === $after && !isset($before['removed'])) {
            return new PlanActResult(null, 'Nothing changed', 0, $this->named($refused), []);
        }
        $done = PlanAct::query()->create([
            'project_id' => $cycle->project_id,
            'cycle_id' => $cycle->id,
            'actor_id' => $user->id,
            'title' => $title,
            'before' => $before,
            'after' => $after,
            'created_at' => Carbon::now(),
        ]);
        BlockDependents::lift($cycle->id);
        ($this->log)($cycle, $user, $title, trim((string) ($changes['note'] ?? '')), $done->id);

        return new PlanActResult(
            $done->id,
            $title,
            $entries->count() - \count($refused),
            $this->named($refused),
            array_values($entries->keys()->all()),
        );
    }

    /**
     * Takes an act back; {@see UndoPlanAct} has locked it.
     */
    public function undo(PlanAct $act): PlanActResult
    {
        $refused = [];
        $cycle = AddEntries::open(Cycle::query()->findOrFail($act->cycle_id));
        $count = $this->undoEntries($cycle, $act, $refused);
        BlockDependents::lift($cycle->id);

        return new PlanActResult(null, UndoPlanAct::title($act), $count, $this->named($refused), []);
    }

    /**
     * @param  Collection<string, \stdClass>  $entries
     * @param  array<string, mixed>  $changes
     */
    private function assign(Cycle $cycle, User $user, Collection $entries, array $changes): string
    {
        $to = $changes['assignee_id'] ?? null;
        $name =
            null === $to
                ? 'nobody'
                : TesterLookup::of($cycle->project_id, [(string) $to], static fn(): string => 'changes.assignee_id')[$to]->user->name;
        $note = trim((string) ($changes['note'] ?? ''));
        DB::table('entries')
            ->whereIn('id', $entries->keys())
            ->update([
                'assignee_id' => $to,
                'handover_note' => $note,
                'handover_by_id' => '' === $note ? null : $user->id,
                'updated_at' => Carbon::now(),
            ]);
        if (null !== $to) {
            app(NotifyPeople::class)->assigned(
                $cycle,
                $user,
                (string) $to,
                $entries->filter(static fn(object $e): bool => $e->assignee_id !== $to)->count(),
                $note,
            );
        }

        return \sprintf('Assigned %s to %s', self::entries($entries->count()), $name);
    }

    /**
     * @param  Collection<string, \stdClass>  $entries
     * @param  array<string, mixed>  $changes
     */
    private function window(Collection $entries, array $changes): string
    {
        $time = static fn(string $name): ?Carbon => isset($changes[$name]) ? Carbon::parse((string) $changes[$name])->utc() : null;
        [$from, $until] = [$time('not_before'), $time('not_after')];
        if (null !== $from && null !== $until && $from >= $until) {
            throw ValidationException::withMessages(['changes.not_after' => 'The window would end before it begins.']);
        }
        DB::table('entries')
            ->whereIn('id', $entries->keys())
            ->update(['not_before' => $from, 'not_after' => $until, 'updated_at' => Carbon::now()]);

        return null === $from && null === $until
            ? 'Took the window off ' . self::entries($entries->count())
            : 'Gave a window to ' . self::entries($entries->count());
    }

    /**
     * @param  Collection<string, \stdClass>  $entries
     * @param  array<string, mixed>  $changes
     */
    private function condition(Cycle $cycle, Collection $entries, array $changes): string
    {
        $needs = (string) ($changes['needs_id'] ?? '');
        $kind =
            ConditionKind::tryFrom((string) ($changes['kind'] ?? '')) ??
            throw ValidationException::withMessages(['changes.kind' => 'Choose “after” or “only if passed”.']);
        $needed =
            DB::table('entries')
                ->join('cases', 'cases.id', '=', 'case_id')
                ->where('cycle_id', $cycle->id)
                ->where('entries.id', $needs)
                ->first(['entries.id', 'cases.key']) ??
            throw ValidationException::withMessages(['changes.needs_id' => 'Choose an entry of this cycle.']);
        $ids = $entries->keys()->reject(static fn(string $id): bool => $id === $needs)->values();
        $kept = array_filter(
            ReadCycle::conditions($cycle->id),
            static fn(Condition $c): bool => !($c->needs === $needs && $ids->contains($c->entry)),
        );
        try {
            Conditions::of([
                ...array_values($kept),
                ...$ids->map(static fn(string $id): Condition => new Condition($id, $needs, $kind))->all(),
            ]);
        } catch (LoopRefused $e) {
            throw ValidationException::withMessages([
                'changes.needs_id' => $e->named(
                    DB::table('entries')
                        ->join('cases', 'cases.id', '=', 'case_id')
                        ->whereIn('entries.id', $e->loop)
                        ->pluck('cases.key', 'entries.id')
                        ->all(),
                ),
            ]);
        }
        DB::table('entry_conditions')->upsert(
            $ids->map(static fn(string $id): array => ['entry_id' => $id, 'needs_id' => $needs, 'kind' => $kind->value])->all(),
            ['entry_id', 'needs_id'],
            ['kind'],
        );

        return \sprintf(
            'Set “%s” on %s',
            ConditionKind::After === $kind ? "after {$needed->key}" : "only if {$needed->key} passed",
            self::entries($ids->count()),
        );
    }

    /**
     * @param  Collection<string, \stdClass>  $entries
     * @param  array<string, mixed>  $changes
     */
    private function drop(Collection $entries, array $changes): string
    {
        DB::table('entry_conditions')
            ->whereIn('entry_id', $entries->keys())
            ->when(isset($changes['needs_id']), static fn($q) => $q->where('needs_id', $changes['needs_id']))
            ->delete();

        return 'Took conditions off ' . self::entries($entries->count());
    }

    /**
     * @param  Collection<string, \stdClass>  $entries
     * @param  array<string, mixed>  $changes
     */
    private function move(Cycle $cycle, Collection $entries, array $changes): string
    {
        $moved = $entries->keys()->all();
        $rest = array_values(array_diff($this->order($cycle), $moved));
        $before = $changes['before_id'] ?? null;
        $at = null === $before ? \count($rest) : array_search($before, $rest, true);
        if (false === $at) {
            throw ValidationException::withMessages(['changes.before_id' => 'That entry is not in the cycle any more.']);
        }
        $this->reorder([...\array_slice($rest, 0, $at), ...$moved, ...\array_slice($rest, $at)]);

        return 'Moved ' . self::entries(\count($moved));
    }

    private function mend(Cycle $cycle): string
    {
        $this->reorder(Conditions::of(ReadCycle::conditions($cycle->id))->mended($this->order($cycle)));

        return 'Put what waits behind what it waits for';
    }

    /**
     * Walked entries stay: what was recorded is kept.
     *
     * @param  Collection<string, \stdClass>  $entries
     * @param  array<string, string>  $refused
     * @param  array<string, mixed>  $before
     */
    private function remove(Collection $entries, array &$refused, array &$before): string
    {
        $free = $entries->filter(static function (object $e) use (&$refused): bool {
            if ($e->attempts_count > 0 || $e->defects_count > 0) {
                $refused[$e->id] = 'It was walked; what was recorded stays. Assign it to nobody, or judge it not applicable.';
            }

            return !isset($refused[$e->id]);
        });
        $before['removed'] = $free->map(static fn(object $e): array => (array) $e)->values()->all();
        $before['their_conditions'] = DB::table('entry_conditions')
            ->whereIn('entry_id', $free->keys())
            ->orWhereIn('needs_id', $free->keys())
            ->get()
            ->map(static fn(object $c): array => (array) $c)
            ->all();
        foreach ($free->keys()->chunk(5000) as $ids) {
            DB::table('entries')->whereIn('id', $ids)->delete();
        }

        return 'Removed ' . self::entries($free->count());
    }

    /**
     * @param  array<string, mixed>  $changes
     */
    private function handOut(Cycle $cycle, array $changes): string
    {
        /** @var array<string, string> $given */
        $given = $changes['given'];
        $by = [];
        foreach ($given as $entry => $person) {
            $by[$person][] = $entry;
        }
        foreach ($by as $person => $ids) {
            foreach (array_chunk($ids, 5000) as $some) {
                DB::table('entries')
                    ->where('cycle_id', $cycle->id)
                    ->whereIn('id', $some)
                    ->update(['assignee_id' => $person, 'updated_at' => Carbon::now()]);
            }
        }
        if (isset($changes['order'])) {
            $order = array_values((array) $changes['order']);
            $this->reorder([...$order, ...array_values(array_diff($this->order($cycle), $order))]);
        }

        return (string) $changes['title'];
    }

    /**
     * @return list<string>
     */
    private function order(Cycle $cycle): array
    {
        return array_values(DB::table('entries')->where('cycle_id', $cycle->id)->orderBy('position')->pluck('id')->all());
    }

    /**
     * @param  list<string>  $order all entries of the cycle
     */
    private function reorder(array $order): void
    {
        foreach (array_chunk($order, 5000, true) as $some) {
            DB::update(
                'update entries set position = n.at from unnest(?::uuid[], ?::int[]) as n (id, at) where entries.id = ' .
                    'n.id and entries.position <> n.at',
                ['{' . implode(',', $some) . '}', '{' . implode(',', array_map(static fn(int $i): int => $i + 1, array_keys($some))) . '}'],
            );
        }
    }

    /**
     * @param  list<string>  $ids
     *
     * @return array<string, mixed>
     */
    private function state(Cycle $cycle, array $ids): array
    {
        $entries = [];
        foreach (array_chunk($ids, 5000) as $some) {
            foreach (
                DB::table('entries')
                    ->whereIn('id', $some)
                    ->get(['id', ...self::KEPT])
                as $row
            ) {
                $entries[$row->id] = array_slice((array) $row, 1);
            }
        }
        ksort($entries);
        $conditions = DB::table('entry_conditions')
            ->whereIn('entry_id', $ids)
            ->orderBy('entry_id')
            ->orderBy('needs_id')
            ->get()
            ->map(static fn(object $c): array => (array) $c)
            ->all();

        return ['entries' => $entries, 'conditions' => $conditions, 'order' => $this->order($cycle)];
    }

    /**
     * @param  array<string, string>  $refused
     */
    private function undoEntries(Cycle $cycle, PlanAct $act, array &$refused): int
    {
        $count = 0;
        if (isset($act->before['removed'])) {
            $top = (int) DB::table('entries')->where('cycle_id', $cycle->id)->max('position');
            // One of them may have come back by itself: somebody had walked it without the server.
            $back = DB::table('entries')
                ->whereIn('id', array_column($act->before['removed'], 'id'))
                ->pluck('id')
                ->all();
            $rows = array_map(
                static fn(array $row): array => [...$row, 'position' => ++$top, 'addition_id' => null],
                array_filter($act->before['removed'], static fn(array $row): bool => !\in_array($row['id'], $back, true)),
            );
            foreach (array_chunk($rows, 500) as $some) {
                DB::table('entries')->insert($some);
            }
            $count += \count($rows);
            $there = DB::table('entries')->where('cycle_id', $cycle->id)->pluck('id')->flip();
            DB::table('entry_conditions')->insertOrIgnore(
                array_values(
                    array_filter(
                        $act->before['their_conditions'],
                        static fn(array $c): bool => isset($there[$c['entry_id']], $there[$c['needs_id']]),
                    ),
                ),
            );
        }
        $now = $this->state($cycle, array_keys($act->before['entries']));
        foreach ($act->before['entries'] as $id => $was) {
            $id = (string) $id;
            $then = $act->after['entries'][$id] ?? null;
            // The database keeps no order of fields.
            if ($was == $then || null === $then) {
                continue;
            }
            if (($now['entries'][$id] ?? null) != $then) {
                $refused[$id] = 'It was changed again since.';

                continue;
            }
            DB::table('entries')->where('id', $id)->update($was);
            $count++;
        }
        if ($act->before['conditions'] != $act->after['conditions'] && !isset($act->before['removed'])) {
            $by = static fn(array $conditions): array => array_reduce(
                $conditions,
                static fn(array $all, array $c): array => [...$all, "{$c['entry_id']} {$c['needs_id']}" => $c],
                [],
            );
            [$was, $then, $is] = [$by($act->before['conditions']), $by($act->after['conditions']), $by($now['conditions'])];
            foreach ($then as $key => $c) {
                if (!isset($was[$key]) && ($is[$key] ?? null) == $c) {
                    DB::table('entry_conditions')->where('entry_id', $c['entry_id'])->where('needs_id', $c['needs_id'])->delete();
                    $count++;
                }
            }
            foreach ($was as $key => $c) {
                if (($then[$key] ?? null) != $c && ($is[$key] ?? null) == ($then[$key] ?? null)) {
                    DB::table('entry_conditions')->upsert([$c], ['entry_id', 'needs_id'], ['kind']);
                    $count++;
                }
            }
        }
        if ($act->before['order'] !== $act->after['order']) {
            $order = $this->order($cycle);
            if (
                array_values(array_intersect($order, $act->after['order'])) === array_values(array_intersect($act->after['order'], $order))
            ) {
                $this->reorder([
                    ...array_values(array_intersect($act->before['order'], $order)),
                    ...array_values(array_diff($order, $act->before['order'])),
                ]);
                $count = max($count, 1);
            } elseif (!isset($act->before['removed'])) {
                throw new Conflict('order-changed', 'The order was changed again since. Move the entries by hand.');
            }
        }

        return $count;
    }

    /**
     * @param  array<string, string>  $refused why, by entry
     *
     * @return list<RefusedEntry>
     */
    private function named(array $refused): array
    {
        $names = DB::table('entries')
            ->join('cases', 'cases.id', '=', 'case_id')
            ->whereIn('entries.id', array_keys($refused))
            ->get(['entries.id', 'cases.key', 'cases.title']);

        return array_values(
            $names->map(static fn(object $n): RefusedEntry => new RefusedEntry($n->id, $n->key, $n->title, $refused[$n->id]))->all(),
        );
    }

    private static function entries(int $n): string
    {
        return number_format($n) . (1 === $n ? ' entry' : ' entries');
    }
}
