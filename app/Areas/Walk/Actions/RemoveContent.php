<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Evidence\Actions\DropFiles;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\AlreadyDone;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\App\Support\Record\CycleChain;
use LucidStep\App\Support\Record\EventRow;
use LucidStep\App\Support\Record\Removals;
use LucidStep\App\Support\Record\TakeOut;
use LucidStep\Core\Record\FreeText;

/**
 * Takes out what must not be there, a file or a text, with everything made from it. The trace stays: who, when, why, and the
 * hash of what it was.
 */
final readonly class RemoveContent
{
    /** What stands where a text was. */
    public const WORD = FreeText::REMOVED;

    public function __construct(private DropFiles $drop, private CycleChain $chain, private PublishChange $announce) {}

    /**
     * Takes a file's content out of a project, its thumbnail and every copy of it in the project's attempts. Where another
     * project shows the same content, it stays stored for that one alone.
     *
     * @param  string  $attempt the attempt it was asked for
     * @param  ?User  $by      null: the application itself, after the time that the project keeps evidence
     */
    public function file(string $attempt, string $project, string $sha256, ?User $by, string $reason): void
    {
        $holders = DB::table('evidence')
            ->where('project_id', $project)
            ->where(static fn($q) => $q->where('sha256', $sha256)->orWhere('marked_sha256', $sha256))
            ->distinct()
            ->pluck('attempt_id')
            ->push($attempt)
            ->unique();
        foreach ($holders as $of) {
            if (DB::table('removals')->where('attempt_id', $of)->where('kind', 'file')->where('subject', $sha256)->exists()) {
                continue;
            }
            Removals::add($project, $of, 'file', $sha256, $reason, $by);
            $this->chain->ofAttempt(Attempt::query()->whereKey($of)->firstOrFail(), $by, 'evidence_removed', [
                'sha256' => $sha256,
                'reason' => $reason,
            ]);
        }
        // What was drawn on it shows it too.
        foreach (
            DB::table('evidence')
                ->where('project_id', $project)
                ->where('sha256', $sha256)
                ->whereNotNull('marked_sha256')
                ->get(['attempt_id', 'marked_sha256'])
            as $drawn
        ) {
            if (
                !DB::table('removals')
                    ->where('attempt_id', $drawn->attempt_id)
                    ->where('kind', 'file')
                    ->where('subject', $drawn->marked_sha256)
                    ->exists()
            ) {
                $this->file($drawn->attempt_id, $project, $drawn->marked_sha256, $by, $reason);
            }
        }
        DB::table('project_files')->where('project_id', $project)->where('sha256', $sha256)->delete();
        foreach (['defect_files', 'session_lines'] as $table) {
            DB::table($table)
                ->where('project_id', $project)
                ->where('sha256', $sha256)
                ->update([
                    'sha256' => null,
                    'name' => self::WORD,
                    'removed_by_id' => $by?->id,
                    'removed_at' => Carbon::now(),
                    'removed_reason' => $reason,
                ]);
        }
        ($this->drop)([$sha256], $project);
        ($this->announce)($project, 'attempt', $attempt);
    }

    /**
     * Takes the texts of an event out of the attempt, wherever they stand in it, and out of its defects.
     *
     * @throws ValidationException when the event holds no text
     * @throws Conflict            when its text is out already
     */
    public function text(Attempt $attempt, int $sequence, User $by, string $reason): void
    {
        $this->chain->hold($attempt->entry_id);
        $attempt = Attempt::query()->lockForUpdate()->findOrFail($attempt->id);
        $event =
            DB::table('events')->where('attempt_id', $attempt->id)->where('sequence', $sequence)->first() ??
            throw ValidationException::withMessages(['sequence' => 'There is no such event in this record.']);
        $texts = array_values(array_unique(self::texts($event)));
        if ([] === $texts) {
            throw self::holdsText($event)
                ? AlreadyDone::removed()
                : ValidationException::withMessages(['sequence' => 'This event holds no text that a person wrote.']);
        }
        foreach (
            DB::table('events')
                ->where('attempt_id', $attempt->id)
                ->orderBy('sequence')
                ->get(['sequence', 'payload', 'salts'])
            as $row
        ) {
            $gone = array_intersect(self::texts($row), $texts);
            if ([] === $gone) {
                continue;
            }
            $salts = EventRow::salts($row);
            Removals::add($attempt->project_id, $attempt->id, 'text', (string) $row->sequence, $reason, $by);
            DB::table('events')
                ->where('attempt_id', $attempt->id)
                ->where('sequence', $row->sequence)
                ->update(EventRow::without($row, $gone));
            $this->chain->ofAttempt($attempt, $by, 'text_removed', [
                'sequence' => $row->sequence,
                'texts' => FreeText::digestsOf($gone, $salts),
                'reason' => $reason,
            ]);
        }
        $this->everywhere($attempt, $texts);
        ($this->announce)($attempt->project_id, 'attempt', $attempt->id);
    }

    /**
     * Takes evidence out whose time is over, as its project says.
     *
     * @return int how many files
     */
    public function expire(Project $project): int
    {
        if (null === $project->retention_days) {
            return 0;
        }
        $old = DB::table('evidence')
            ->join('attempts', 'attempts.id', '=', 'evidence.attempt_id')
            ->where('evidence.project_id', $project->id)
            ->whereNotNull('evidence.sha256')
            ->where('attempts.finished_at', '<', Carbon::now()->subDays($project->retention_days))
            ->whereNotExists(
                static fn($q) => $q
                    ->from('removals')
                    ->whereColumn('removals.attempt_id', 'evidence.attempt_id')
                    ->where('removals.kind', 'file')
                    ->whereColumn('removals.subject', 'evidence.sha256'),
            )
            // The same content may stand in a younger attempt.
            ->whereNotExists(
                static fn($q) => $q
                    ->from('evidence as other')
                    ->join('attempts as young', 'young.id', '=', 'other.attempt_id')
                    ->whereColumn('other.sha256', 'evidence.sha256')
                    ->where('other.project_id', $project->id)
                    ->where(
                        static fn($r) => $r
                            ->whereNull('young.finished_at')
                            ->orWhere('young.finished_at', '>=', Carbon::now()->subDays($project->retention_days)),
                    ),
            )
            ->distinct()
            ->limit(2000)
            ->get(['evidence.attempt_id', 'evidence.sha256']);
        foreach ($old->unique('sha256') as $row) {
            DB::transaction(
                fn() => $this->file($row->attempt_id, $project->id, $row->sha256, null, "Kept for {$project->retention_days} days"),
            );
        }

        return $old->unique('sha256')->count();
    }

    /**
     * @param  \stdClass  $event with payload and salts
     *
     * @return array<string, string> its free texts that are there, by path
     */
    private static function texts(\stdClass $event): array
    {
        return array_intersect_key(FreeText::in(EventRow::payload($event->payload)), EventRow::salts($event));
    }

    private static function holdsText(\stdClass $event): bool
    {
        return [] !== FreeText::digests(json_decode($event->bytes, true, 512, \JSON_THROW_ON_ERROR)['payload']);
    }

    /**
     * @param  array<array-key, mixed>  $payload
     * @param  list<string>  $texts
     *
     * @return array<array-key, mixed>
     */
    private static function without(array $payload, array $texts): array
    {
        return array_map(
            static fn(mixed $v): mixed => match (true) {
                \is_array($v) => self::without($v, $texts),
                \is_string($v) && \in_array($v, $texts, true) => self::WORD,
                default => $v,
            },
            $payload,
        );
    }

    /**
     * @param  list<string>  $texts
     */
    private function everywhere(Attempt $attempt, array $texts): void
    {
        $rounds = DB::table('rounds')->where('attempt_id', $attempt->id)->select('id');
        foreach ($texts as $text) {
            foreach (['note', 'happened', 'reason', 'waits_on'] as $column) {
                DB::table('step_results')
                    ->whereIn('round_id', $rounds)
                    ->where($column, $text)
                    ->update([$column => self::WORD]);
            }
            foreach (['note', 'remark', 'environment', 'takeover_word'] as $column) {
                DB::table('attempts')
                    ->where('id', $attempt->id)
                    ->where($column, $text)
                    ->update([$column => self::WORD]);
            }
            foreach (['name', 'caption'] as $column) {
                DB::table('evidence')
                    ->where('attempt_id', $attempt->id)
                    ->where($column, $text)
                    ->update([$column => self::WORD]);
            }
        }
        TakeOut::of($attempt->project_id, $attempt->entry->case_id, $texts);
        $actors = DB::table('events')->where('attempt_id', $attempt->id)->distinct()->pluck('actor_id');
        TakeOut::storedAnswers(array_values($actors->map(strval(...))->all()), $attempt->started_at, $texts);
        // What waits for a lead holds it too.
        foreach (LateCommand::query()->where('attempt_id', $attempt->id)->get() as $late) {
            $late->update(['payload' => self::without($late->payload, $texts)]);
        }
    }
}
