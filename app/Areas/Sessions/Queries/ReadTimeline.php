<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Queries;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Sessions\Data\TimelineLine;
use LucidStep\App\Areas\Sessions\Data\TimelinePage;
use LucidStep\App\Models\SessionLine;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Data\TakenOut;
use LucidStep\App\Support\Paging\WindowOrder;
use LucidStep\App\Support\Paging\WordFilter;
use LucidStep\App\Support\Time\UtcTime;
use LucidStep\Core\Sessions\LineKind;
use LucidStep\Core\Sessions\Reached;
use LucidStep\Core\Sessions\Sentence;
use LucidStep\Core\Sessions\SessionLine as CoreLine;

/**
 * Reads a session's timeline, by windows and by what is looked for, as rows: there may be thousands.
 */
final class ReadTimeline
{
    public const PAGE = 1000;

    /**
     * @param  string  $words that they have
     * @param  list<LineKind>  $kinds none: all
     * @param  string  $after where the page before ended
     * @param  int  $since only lines with a higher number, which arrived later
     */
    public function __invoke(string $session, string $words = '', array $kinds = [], string $after = '', int $since = 0): TimelinePage
    {
        $query = $this->rows()->where('l.session_id', $session)->where('l.number', '>', $since);
        if ([] !== $kinds) {
            $query->whereIn('l.kind', $kinds);
        }
        if ('' !== $words) {
            WordFilter::narrow(
                $query,
                $words,
                "lucid_fold(l.words || ' ' || l.control || ' ' || coalesce(l.value, '') || ' ' || coalesce(l.page, ''))",
            );
        }
        $all = clone $query;
        $order = new WindowOrder(
            [
                '(extract(epoch from l.done_at) * 1000)::bigint' => 'bigint',
                'coalesce(l.counter, 0)' => 'bigint',
                'l.number' => 'bigint',
            ],
            false,
        );
        $order->apply($query, $after);
        $found = $query->limit(self::PAGE + 1)->get();
        $page = $found->take(self::PAGE);
        // Where all of it is there, it is counted already: looking through every line a second time takes as long again.
        $total = '' === $after && $found->count() <= self::PAGE ? $found->count() : $all->count();
        $last = $page->last();

        return new TimelinePage(
            array_values($page->map(self::line(...))->all()),
            $total,
            $found->count() > self::PAGE && null !== $last ? $order->cursor($last) : null,
        );
    }

    /**
     * @param  list<string>  $lines ids
     *
     * @return list<TimelineLine> the captures among them, in order
     */
    public function captures(array $lines): array
    {
        $rows = $this->rows()->whereIn('l.id', $lines)->whereNotNull('l.sha256')->orderBy('l.done_at')->orderBy('l.number')->get();

        return array_values($rows->map(self::line(...))->all());
    }

    public function one(SessionLine $line): TimelineLine
    {
        $row = $this->rows()->where('l.id', $line->id)->first() ?? throw new \LogicException('A line without a row.');

        return self::line($row);
    }

    private function rows(): Builder
    {
        return DB::table('session_lines as l')
            ->leftJoin('files as f', 'f.sha256', '=', 'l.sha256')
            ->leftJoin('users as r', 'r.id', '=', 'l.removed_by_id')
            ->select(['l.*', 'f.media_type', 'r.name as remover']);
    }

    /**
     * A line as the rules know it.
     *
     * @param  \stdClass  $l a row of `session_lines`
     */
    public static function core(\stdClass $l): CoreLine
    {
        return new CoreLine(
            $l->id,
            LineKind::from($l->kind),
            $l->at_ms,
            $l->words,
            $l->pinned,
            $l->page,
            $l->tab,
            null === $l->reached ? null : Reached::from($l->reached),
            $l->opener,
            $l->control,
            $l->value,
        );
    }

    private static function line(\stdClass $l): TimelineLine
    {
        $kind = LineKind::from($l->kind);
        $removed = UtcTime::time($l->removed_at);
        $url = null === $l->sha256 ? null : "/api/v1/session-lines/{$l->id}";
        $isPicture = null !== $url && (new StoredFile(['media_type' => $l->media_type]))->isPicture();
        $words = $kind->isObserved() ? Sentence::of(self::core($l)) : $l->words;

        return new TimelineLine(
            $l->id,
            $l->number,
            $kind->value,
            $l->at_ms,
            $words,
            json_decode($l->former, true, 4, \JSON_THROW_ON_ERROR),
            $l->pinned,
            $l->page,
            $l->name,
            $l->media_type,
            null === $url ? null : "{$url}/file",
            $isPicture ? "{$url}/thumbnail" : null,
            null === $removed
                ? null
                : new TakenOut(
                    null === $l->removed_by_id ? null : new Person($l->removed_by_id, (string) $l->remover),
                    $removed,
                    $l->removed_reason,
                ),
        );
    }
}
