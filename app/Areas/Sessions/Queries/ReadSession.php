<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Queries;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Sessions\Data\SessionCommentLine;
use LucidStep\App\Areas\Sessions\Data\SessionDetail;
use LucidStep\App\Areas\Sessions\Data\SessionShares;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Data\Person;
use LucidStep\Core\Sessions\Focus;
use LucidStep\Core\Sessions\Work;

/**
 * Reads a session with everything about it but its timeline.
 */
final readonly class ReadSession
{
    public function __construct(private ReadRepro $repros) {}

    public function __invoke(TestSession $s, User $reader): SessionDetail
    {
        $s->loadMissing('tester', 'build', 'configuration', 'signedBy');
        $now = Carbon::now()->getTimestampMs();
        $counts = DB::table('session_lines')
            ->where('session_id', $s->id)
            ->groupBy('kind')
            ->pluck(DB::raw('count(*) as n'), 'kind')
            ->map(static fn(mixed $n): int => (int) $n)
            ->all();
        $time = static fn(?Carbon $at): ?string => $at?->toIso8601ZuluString('millisecond');

        return new SessionDetail(
            $s->id,
            $s->number,
            CharterLines::one($s->charter_id)[0],
            Person::from($s->tester),
            $s->state->value,
            Named::orNull($s->build),
            Named::orNull($s->configuration),
            $s->environment,
            $s->box_ms,
            $s->runs,
            $s->clock()->at($now),
            self::last($s, Focus::class, Focus::Charter->value),
            self::last($s, Work::class, Work::Testing->value),
            SessionShares::from($s->shares($now)),
            $now,
            $s->started_at->toIso8601ZuluString('millisecond'),
            $time($s->stopped_at),
            (object) $counts,
            $this->repros->ofSession($s->id),
            array_values($s->comments()->with('author', 'to', 'remover')->get()->map(SessionCommentLine::from(...))->all()),
            $s->covered,
            $s->remarks,
            Person::orNull($s->signedBy),
            $time($s->signed_at),
            $s->sign_note,
            $s->tester_id === $reader->id,
        );
    }

    /**
     * @param  class-string<Focus|Work>  $of
     */
    private static function last(TestSession $s, string $of, string $first): string
    {
        foreach (array_reverse($s->switches) as [, $to]) {
            if (null !== $of::tryFrom($to)) {
                return $to;
            }
        }

        return $first;
    }
}
