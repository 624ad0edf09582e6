<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Sessions\Data\StretchDetail;
use LucidStep\App\Areas\Sessions\Data\StretchLine;
use LucidStep\App\Models\SessionLine;
use LucidStep\App\Support\Data\Named;
use LucidStep\Core\Defects\Draft;
use LucidStep\Core\Sessions\LineKind;
use LucidStep\Core\Sessions\Sentence;
use LucidStep\Core\Sessions\SessionLine as CoreLine;
use LucidStep\Core\Sessions\Trimming;
use LucidStep\Core\Sessions\WhyDropped;

/**
 * Reads what led to a line of a session: what stays of it is proposed by the rules of the job (8).
 */
final readonly class ReadStretch
{
    /** So many lines are shown at most; older ones are counted. */
    private const MOST = 500;

    public function __construct(private ReadTimeline $timeline, private ReadRepro $repros) {}

    /**
     * @param  string  $from   the line with which the stretch begins; empty: where the way there begins
     * @param  int  $before so many lines before that are shown too, left out
     */
    public function __invoke(SessionLine $marked, string $from = '', int $before = 0): StretchDetail
    {
        $session = $marked->session->loadMissing('charter', 'build', 'configuration');
        $lines = $this->upTo($marked);
        $at = array_flip(array_map(static fn(CoreLine $l): string => $l->id, $lines));
        $proposed = Trimming::propose($lines, (int) ($at[$from] ?? 0));
        $first = $this->first($lines, $proposed);
        $begin = max(0, $first - $before, \count($lines) - 1 - self::MOST);
        $shown = \array_slice($lines, $begin, -1);
        $observed = [] !== array_filter($shown, static fn(CoreLine $l): bool => $l->isStep());
        $kept = array_filter($shown, static fn(CoreLine $l): bool => \array_key_exists($l->id, $proposed) && null === $proposed[$l->id]);
        $draft = Draft::ofStretch(
            $session->charter->title,
            $marked->words,
            $session->environment,
            self::of($kept, LineKind::Visit, static fn(CoreLine $l): string => (string) $l->page),
            self::of($kept, LineKind::Trouble, static fn(CoreLine $l): string => $l->words),
        );
        $captures = $this->timeline->captures(
            array_map(static fn(CoreLine $l): string => $l->id, [...$shown, ...\array_slice($lines, -1)]),
        );
        $pictures = array_column($captures, 'thumbnail_url', 'id');

        return new StretchDetail(
            $session->id,
            $session->charter->key,
            $session->charter->title,
            $session->number,
            $this->timeline->one($marked),
            array_map(
                static fn(CoreLine $l): StretchLine => self::line(
                    $l,
                    \array_key_exists($l->id, $proposed) ? $proposed[$l->id] : WhyDropped::BeforeTheStart,
                    $observed,
                    $pictures[$l->id] ?? null,
                ),
                $shown,
            ),
            $begin,
            $captures,
            $draft->title,
            $draft->actual,
            $draft->environment,
            $draft->body,
            Named::orNull($session->build),
            Named::orNull($session->configuration),
            $this->repros->ofLine($marked->id),
        );
    }

    /**
     * @return list<CoreLine> in order, the marked one last
     */
    private function upTo(SessionLine $marked): array
    {
        $order = 'done_at, coalesce(counter, 0), number';
        $rows = DB::select(
            "select * from session_lines where session_id = ? and ({$order}) <= (select {$order} from session_lines where id = ?) " .
                "order by {$order}",
            [$marked->session_id, $marked->id],
        );

        return array_values(array_map(ReadTimeline::core(...), $rows));
    }

    /**
     * @param  list<CoreLine>  $lines
     * @param  array<string, ?WhyDropped>  $proposed
     *
     * @return int the first that is not before the way there, by index
     */
    private function first(array $lines, array $proposed): int
    {
        foreach ($lines as $i => $line) {
            if (\array_key_exists($line->id, $proposed) && WhyDropped::BeforeTheStart !== $proposed[$line->id]) {
                return $i;
            }
        }

        return \count($lines) - 1;
    }

    private static function line(CoreLine $l, ?WhyDropped $why, bool $observed, ?string $picture): StretchLine
    {
        return new StretchLine(
            $l->id,
            $l->kind->value,
            $l->atMs,
            $l->kind->isObserved() ? Sentence::of($l) : $l->words,
            // Where nothing was observed, what was written is all there is.
            $observed ? $l->isStep() : $l->says(),
            $why?->value,
            null === $why ? '' : $why->words(),
            $l->pinned,
            $picture,
        );
    }

    /**
     * @param  array<array-key, CoreLine>  $lines
     * @param  \Closure(CoreLine): string  $what
     *
     * @return list<string> each once
     */
    private static function of(array $lines, LineKind $kind, \Closure $what): array
    {
        $of = array_filter($lines, static fn(CoreLine $l): bool => $kind === $l->kind);

        return array_values(array_unique(array_map($what, $of)));
    }
}
