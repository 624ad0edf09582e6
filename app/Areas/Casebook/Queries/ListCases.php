<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Queries;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Casebook\Data\CaseLine;
use LucidStep\App\Areas\Casebook\Data\CasePage;
use LucidStep\App\Areas\Casebook\Data\TextPart;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Support\Paging\PageCursor;

/**
 * Lists cases page by page, in a chosen order.
 */
final readonly class ListCases
{
    public function __construct(private TextChecks $checks) {}

    public const PAGE = 60;

    /** Up to so many finds stand in the order of how well they fit. */
    private const RANKED = 200;

    /** A word that stands in more than {@see RANKED} of so many cases is a common one. */
    private const PROBED = 1000;

    /**
     * What a line shows: not the words and what is made of them for searching, which are most of a row. Rows and not
     * models: making a model of each takes longer than finding them.
     */
    private const COLUMNS = 'cases.id, cases.folder_id, cases.number, cases.key, cases.title,
        cases.state, cases.type, cases.priority, cases.priority_rank, cases.automated, cases.estimate_seconds,
        cases.owner_id, cases.labels, cases.position, cases.updated_at, cases.revision, cases.custom,
        cases.is_template, cases.table_id, cases.steps_count, cases.last_walked_at, cases.binned_at, cases.version_id,
        users.name as owner_name,
        (select errors from text_checks where case_version_id = cases.version_id) as errors';

    /** Orders by name: the column, of which type it is, and whether it may be empty. */
    public const SORTS = [
        'key' => ['number', 'integer', false],
        'order' => ['position', 'number', false],
        'title' => ['title', 'text', false],
        'state' => ['state', 'text', false],
        'type' => ['type', 'text', false],
        'priority' => ['priority_rank', 'integer', false],
        'owner' => ['owner_id', 'uuid', true],
        'estimate' => ['estimate_seconds', 'integer', true],
        'walked' => ['last_walked_at', 'time', true],
        'changed' => ['updated_at', 'time', false],
    ];

    /**
     * @param  string  $sort  of {@see SORTS}, with "-" before it backwards; empty: how well they fit, a folder's own order, or by key
     * @param  string  $after where the page before ended
     */
    public function __invoke(Project $project, CaseFilter $filter, string $sort = '', string $after = '', string $group = ''): CasePage
    {
        $words = $filter->searchWords();
        $group = \in_array($group, CountCases::GROUPS, true) ? $group : '';
        $common = false;
        $name = '' !== $group ? $group : ltrim($sort, '-');
        $back = '' === $group && str_starts_with($sort, '-');
        if (!isset(self::SORTS[$name])) {
            $name = isset($filter->asked['folder']) && !isset($filter->asked['deep']) ? 'order' : 'key';
            // Beside other criteria the planner knows better.
            $common =
                null !== $words &&
                ['q'] === array_keys($filter->asked) &&
                CountCases::among($filter, self::PROBED, self::RANKED + 1) > self::RANKED;
            if (null !== $words && '' === $sort && !$common && CountCases::upTo($filter, self::RANKED + 1) <= self::RANKED) {
                $name = 'fit';
            }
        }
        $query = $filter->query();
        [$query, $next] = 'fit' === $name ? $this->byFit($query, (string) $words, $after) : $this->sorted($query, $name, $back, $after);
        $read = static fn(): Collection => self::rows($query, self::PAGE + 1);
        $found = $common
            ? DB::transaction(static function () use ($read): Collection {
                // What so many cases have is met soon on the way along the order; the index of words would put all of them together first.
                DB::statement('set local enable_bitmapscan = off');

                return $read();
            })
            : $read();
        $page = $found->take(self::PAGE);
        $last = $page->last();

        return new CasePage(
            $this->marked($project->id, $page, $words),
            $found->count() > self::PAGE && null !== $last ? $next($last) : null,
        );
    }

    /**
     * @param  Builder<TestCase>  $query
     *
     * @return array{Builder<TestCase>, \Closure(\stdClass): string}
     */
    private function byFit(Builder $query, string $words, string $after): array
    {
        $from = max(0, min(self::RANKED, (int) $after));
        $query->orderByRaw('ts_rank(cases.search, lucid_query(?)) desc, cases.number', [$words])->offset($from);

        return [$query, static fn(\stdClass $last): string => (string) ($from + self::PAGE)];
    }

    /**
     * @param  Builder<TestCase>  $query
     *
     * @return array{Builder<TestCase>, \Closure(\stdClass): string}
     */
    private function sorted(Builder $query, string $name, bool $back, string $after): array
    {
        [$column, $type, $mayBeEmpty] = self::SORTS[$name];
        $direction = $back ? 'desc' : 'asc';
        $nulls = !$mayBeEmpty ? '' : ($back ? ' nulls first' : ' nulls last');
        $query->orderByRaw("cases.{$column} {$direction}{$nulls}" . ('number' === $column ? '' : ", cases.number {$direction}"));
        $from = PageCursor::decode($after, 2);
        if (
            null !== $from &&
            PageCursor::fits($from[1], 'integer') &&
            (($mayBeEmpty && null === $from[0]) || PageCursor::fits($from[0], $type))
        ) {
            $sign = $back ? '<' : '>';
            // Whatever number stands there, it is compared as one that holds it.
            $mark = ['integer' => '?::bigint', 'number' => '?::float8'][$type] ?? '?';
            if ('number' === $column) {
                $query->whereRaw("cases.number {$sign} ?::bigint", [$from[1]]);
            } elseif (!$mayBeEmpty) {
                $query->whereRaw("(cases.{$column}, cases.number) {$sign} ({$mark}, ?::bigint)", $from);
            } elseif (null === $from[0]) {
                // Among those without a value; backwards all the others still follow.
                $query->where(
                    static fn(Builder $q) => $q
                        ->where(
                            static fn(Builder $r) => $r
                                ->whereNull("cases.{$column}")
                                ->whereRaw("cases.number {$sign} ?::bigint", [$from[1]]),
                        )
                        ->when($back, static fn($r) => $r->orWhereNotNull("cases.{$column}")),
                );
            } else {
                $query->where(
                    static fn(Builder $q) => $q
                        ->whereRaw("(cases.{$column}, cases.number) {$sign} ({$mark}, ?::bigint)", $from)
                        ->when(!$back, static fn($r) => $r->orWhereNull("cases.{$column}")),
                );
            }
        }

        return [$query, static fn(\stdClass $last): string => PageCursor::encode([$last->{$column}, $last->number])];
    }

    /**
     * @param  Builder<TestCase>  $query of cases of the project, in the wanted order
     *
     * @return list<CaseLine>
     */
    public function lines(string $project, Builder $query, int $most): array
    {
        return $this->marked($project, self::rows($query, $most), null);
    }

    /**
     * @param  Builder<TestCase>  $query
     *
     * @return Collection<int, \stdClass>
     */
    private static function rows(Builder $query, int $most): Collection
    {
        return $query->toBase()->leftJoin('users', 'users.id', '=', 'cases.owner_id')->selectRaw(self::COLUMNS)->limit($most)->get();
    }

    /**
     * @param  Collection<int, \stdClass>  $rows
     *
     * @return list<CaseLine>
     */
    private function marked(string $project, Collection $rows, ?string $words): array
    {
        $marked = [];
        if (null !== $words && $rows->isNotEmpty()) {
            $ids = $rows->pluck('id')->all();
            $marks = "StartSel=\x01, StopSel=\x02";
            foreach (
                DB::table('cases')
                    ->whereIn('id', $ids)
                    ->selectRaw(
                        "id, ts_headline('lucid_words', title, lucid_query(?), ?) as title, ts_headline('lucid_words', " .
                            'left(words, 10000), lucid_query(?), ?) as words',
                        [$words, "{$marks}, HighlightAll=true", $words, "{$marks}, MaxWords=18, MinWords=8, MaxFragments=1"],
                    )
                    ->get()
                as $row
            ) {
                $marked[$row->id] = [self::parts($row->title), str_contains((string) $row->words, "\x01") ? self::parts($row->words) : []];
            }
        }

        $unknown = $rows->whereNull('errors')->pluck('version_id')->all();
        $errors = [] === $unknown ? [] : $this->checks->errors($project, array_values($unknown));

        return array_values(
            $rows
                ->map(
                    static fn(\stdClass $row): CaseLine => CaseLine::fromRow(
                        $row,
                        null === $row->errors ? $errors[$row->version_id] ?? [] : json_decode($row->errors, true),
                        ...$marked[$row->id] ?? [],
                    ),
                )
                ->all(),
        );
    }

    /**
     * @return list<TextPart>
     */
    private static function parts(string $marked): array
    {
        $parts = [];
        foreach (
            preg_split("/(\x01[^\x02]*\x02)/", str_replace("\n", ' ', $marked), -1, \PREG_SPLIT_DELIM_CAPTURE | \PREG_SPLIT_NO_EMPTY) ?: []
            as $piece
        ) {
            $hit = "\x01" === $piece[0];
            $parts[] = new TextPart($hit ? trim($piece, "\x01\x02") : $piece, $hit);
        }

        return $parts;
    }
}
