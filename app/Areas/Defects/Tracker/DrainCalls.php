<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Tracker;

use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectFile;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Models\TrackerCall;
use LucidStep\App\Models\TrackerConnection;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\Core\Defects\DefectState;
use LucidStep\Core\Defects\Tracker\CallState;
use LucidStep\Core\Defects\Tracker\Outbox;
use LucidStep\Core\Defects\Tracker\OutboxCall;
use LucidStep\Core\Defects\Tracker\Outcome;

/**
 * Sends what waits for the tracker of a project: one call after the other, those of a defect in their order.
 */
final readonly class DrainCalls
{
    /** Seconds after which another worker may go on. */
    private const TURN = 50;

    public function __construct(private OutsideHttp $http, private Filesystem $files, private PublishChange $announce) {}

    /**
     * @return int how many were sent
     */
    public function __invoke(string $project): int
    {
        // Two workers at once would pass each other by.
        $sent = 0;
        Cache::lock("tracker-{$project}", self::TURN + 30)->get(function () use ($project, &$sent): void {
            $until = microtime(true) + self::TURN;
            while (microtime(true) < $until && null !== ($connection = self::ready($project)) && null !== ($call = $this->next($project))) {
                $sent += CallState::Sent === $this->send($call, $connection) ? 1 : 0;
            }
        });

        return $sent;
    }

    /**
     * @return ?TrackerConnection null while there is none, or it rests
     */
    private static function ready(string $project): ?TrackerConnection
    {
        $connection = TrackerQueue::connection($project);

        return $connection?->resting_until?->isFuture() ?? false ? null : $connection;
    }

    private function next(string $project): ?TrackerCall
    {
        $now = Carbon::now();
        // The first of each defect: the others wait for it.
        $heads = DB::table('tracker_calls')
            ->where('project_id', $project)
            ->whereIn('state', [CallState::Waiting, CallState::Refused])
            ->selectRaw('distinct on (defect_id) id, number, state, next_at')
            ->orderBy('defect_id')
            ->orderBy('number');
        // No more than those whose turn may have come: the core says whose it is.
        $due = DB::query()->fromSub($heads, 'h')->where('state', CallState::Waiting)->orderBy('number')->limit(10)->select('id');
        $due->where('next_at', '<=', $now->copy()->addSecond()->format('Y-m-d H:i:s.uP'));
        $calls = TrackerCall::query()->whereIn('id', $due)->get();
        $facts = array_values($calls->map(static fn(TrackerCall $c): OutboxCall => $c->facts())->all());

        return $calls->firstWhere('id', Outbox::next($facts, $now->getTimestamp())?->id);
    }

    private function send(TrackerCall $call, TrackerConnection $connection): CallState
    {
        $problem = '';
        $issue = null;
        try {
            $issue = $this->say($call, $connection);
            $outcome = Outcome::Sent;
        } catch (TrackerRefused $e) {
            [$outcome, $problem] = [Outcome::Refused, $e->getMessage()];
        } catch (TrackerAway $e) {
            [$outcome, $problem] = [Outcome::Again, $e->getMessage()];
        }
        $now = Carbon::now();
        $after = $call->facts()->after($outcome, $now->getTimestamp(), random_int(0, 1000) / 1000);
        DB::transaction(function () use ($call, $after, $problem, $issue, $outcome, $now): void {
            $call->update([
                'state' => $after->state,
                'tries' => $after->tries,
                'next_at' => Carbon::createFromTimestampUTC($after->nextAt),
                'problem' => $problem,
                'done_at' => CallState::Sent === $after->state ? $now : null,
            ]);
            if ($issue instanceof OutsideIssue) {
                // That it is there is no change of what it says.
                Defect::query()
                    ->whereKey($call->defect_id)
                    ->toBase()
                    ->update([
                        'outside_key' => $issue->key,
                        'outside_url' => $issue->url,
                        'outside_state' => $issue->state,
                        'outside_assignee' => $issue->assignee,
                        'outside_changed' => $issue->changed,
                        'outside_seen_at' => $now,
                    ]);
            }
            $this->count($call->project_id, $outcome, $problem);
            ($this->announce)($call->project_id, 'defect', $call->defect_id);
        });

        return $after->state;
    }

    /**
     * @return ?OutsideIssue what a filing made there
     */
    private function say(TrackerCall $call, TrackerConnection $connection): ?OutsideIssue
    {
        $tracker = new JsonTracker($this->http, $connection->address, $connection->token, $connection->map());
        $key = (string) Defect::query()->whereKey($call->defect_id)->value('outside_key');
        $text = static fn(string $name): string => \is_string($call->payload[$name] ?? null) ? $call->payload[$name] : '';
        if ('file' === $call->act) {
            return $tracker->file(['title' => $text('title'), 'body' => $text('body'), 'severity' => $text('severity')], $call->id);
        }
        if ('' === $key) {
            throw new TrackerRefused(
                0,
                'The defect is not in the tracker: its filing was left out. Leave this out too, or send the defect.',
            );
        }
        match ($call->act) {
            'comment' => $tracker->comment($key, $text('text'), $call->id),
            'move' => $this->move($tracker, $call, $key, $connection->map()->outside(DefectState::from($text('state')))),
            'attach' => $this->attach($tracker, $call, $key, $text('evidence'), $text('file')),
        };

        return null;
    }

    /**
     * @param  string  $state as the tracker calls it; empty: it has none like this
     */
    private function move(Tracker $tracker, TrackerCall $call, string $key, string $state): void
    {
        if ('' !== $state) {
            $tracker->move($key, $state, $call->id);
            // So it stands there now: told back, it is no news.
            Defect::query()
                ->whereKey($call->defect_id)
                ->toBase()
                ->update(['outside_state' => $state]);
        }
    }

    /**
     * @param  string  $evidence of a walk, by id; empty: it is a file that was added by hand
     */
    private function attach(Tracker $tracker, TrackerCall $call, string $key, string $evidence, string $added): void
    {
        [$name, $file] = '' === $evidence ? self::added($added) : self::captured($evidence);
        // What was taken out meanwhile goes nowhere.
        $stream = null === $file ? null : $this->files->readStream($file->path());
        if (null !== $file && null !== $stream) {
            $tracker->attach($key, $name, $file->media_type, $stream, $call->id);
        }
    }

    /**
     * @return array{string, ?StoredFile} name and content; none: it was taken out
     */
    private static function captured(string $id): array
    {
        $evidence = Evidence::query()->with('file', 'marked')->whereNull('removed_at')->find($id);

        return [$evidence->name ?? '', $evidence->marked ?? ($evidence->file ?? null)];
    }

    /**
     * @return array{string, ?StoredFile}
     */
    private static function added(string $id): array
    {
        $file = DefectFile::query()->with('file')->find($id);

        return [$file->name ?? '', $file->file ?? null];
    }

    /**
     * Failures in a row let the connection rest.
     */
    private function count(string $project, Outcome $outcome, string $problem): void
    {
        $connection = TrackerConnection::query()->where('project_id', $project)->lockForUpdate()->first();
        if (null === $connection) {
            return;
        }
        $failures = Outcome::Again === $outcome ? $connection->failures + 1 : 0;
        $rests = $failures >= Outbox::REST_AFTER;
        $connection->update([
            'failures' => $rests ? 0 : $failures,
            'resting_until' => $rests ? Carbon::now()->addSeconds(Outbox::REST_SECONDS) : $connection->resting_until,
            'problem' => $problem,
        ]);
    }
}
