<?php

declare(strict_types=1);

namespace LucidStep\App\Actions\Casebook;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Http\Resources\CaseLine;
use LucidStep\App\Http\Resources\CasePage;
use LucidStep\App\Http\Resources\TextPart;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;

/**
 * Lists cases page by page, in a chosen order.
 */
final readonly class ListCases
{
    public const PAGE = 60;

    /** Up to so many finds stand in the order of how well they fit. */
    private const RANKED = 200;

    /** What a line shows: not the words and what is made of them for searching, which are most of a row. */
    private const COLUMNS = ['id', 'project_id', 'folder_id', 'number', 'key', 'title', 'state', 'type', 'priority', 'priority_rank', 'automated', 'estimate_seconds', 'owner_id', 'labels', 'position', 'binned_at', 'updated_at', 'revision', 'custom', 'is_template', 'table_id', 'steps_count', 'last_walked_at'];

    /** Orders by name, with what stands for a missing value so that a page can begin after one. */
    public const SORTS = [
        'key' => ['number', null], 'order' => ['position', null], 'title' => ['title', null], 'state' => ['state', null], 'type' => ['type', null], 'priority' => ['priority_rank', null],
        'owner' => ['owner_id', 'ffffffff-ffff-ffff-ffff-ffffffffffff'], 'estimate' => ['estimate_seconds', '2147483647'], 'walked' => ['last_walked_at', 'infinity'], 'changed' => ['updated_at', null],
    ];

    /**
     * @param  string  $sort  of {@see SORTS}, with "-" before it backwards; empty: how well they fit, a folder's own order, or by key
     * @param  string  $after where the page before ended
     */
    public function __invoke(Project $project, CaseFilter $filter, string $sort = '', string $after = '', string $group = ''): CasePage
    {
        $words = $filter->searchQuery();
        $group = \in_array($group, CountCases::GROUPS, true) ? $group : '';
        $name = '' !== $group ? $group : ltrim($sort, '-');
        $back = '' === $group && str_starts_with($sort, '-');
        if (!isset(self::SORTS[$name])) {
            $name = isset($filter->asked['folder']) && !isset($filter->asked['deep']) ? 'order' : 'key';
            if (null !== $words && '' === $sort && CountCases::upTo($filter, self::RANKED + 1) <= self::RANKED) {
                $name = 'fit';
            }
        }
        $query = $filter->query();
        [$query, $next] = 'fit' === $name ? $this->byFit($query, (string) $words, $after) : $this->sorted($query, $name, $back, $after);
        $found = $query->with('owner')->limit(self::PAGE + 1)->get(self::COLUMNS);
        $page = $found->take(self::PAGE);
        $last = $page->last();

        return new CasePage(
            $this->lines($page->all(), $words), $found->count() > self::PAGE && null !== $last ? $next($last) : null,
        );
    }

    /**
     * @param  Builder<TestCase>  $query
     *
     * @return array{Builder<TestCase>, \Closure(TestCase): string}
     */
    private function byFit(Builder $query, string $words, string $after): array
    {
        $from = max(0, min(self::RANKED, (int) $after));
        $query->orderByRaw("ts_rank(cases.search, to_tsquery('simple', ?)) desc, number", [$words])->offset($from);

        return [$query, static fn (TestCase $last): string => (string) ($from + self::PAGE)];
    }

    /**
     * @param  Builder<TestCase>  $query
     *
     * @return array{Builder<TestCase>, \Closure(TestCase): string}
     */
    private function sorted(Builder $query, string $name, bool $back, string $after): array
    {
        [$column, $missing] = self::SORTS[$name];
        $direction = $back ? 'desc' : 'asc';
        $nulls = null === $missing ? '' : ($back ? ' nulls first' : ' nulls last');
        $query->orderByRaw("cases.{$column} {$direction}{$nulls}".('number' === $column ? '' : ", cases.number {$direction}"));
        $from = json_decode(base64_decode(strtr($after, '-_', '+/'), true) ?: '', true);
        if (\is_array($from) && 2 === \count($from) && \is_int($from[1] ?? null) && (\is_scalar($from[0]) || null === $from[0])) {
            $sign = $back ? '<' : '>';
            if ('number' === $column) {
                $query->where('cases.number', $sign, $from[1]);
            } elseif (null === $missing) {
                $query->whereRaw("(cases.{$column}, cases.number) {$sign} (?, ?)", $from);
            } elseif (null === $from[0]) {
                // Among those without a value; backwards all the others still follow.
                $query->where(static fn (Builder $q) => $q->where(static fn (Builder $r) => $r->whereNull("cases.{$column}")->where('cases.number', $sign, $from[1]))->when($back, static fn ($r) => $r->orWhereNotNull("cases.{$column}")));
            } else {
                $query->where(static fn (Builder $q) => $q->whereRaw("(cases.{$column}, cases.number) {$sign} (?, ?)", $from)->when(!$back, static fn ($r) => $r->orWhereNull("cases.{$column}")));
            }
        }

        return [$query, static fn (TestCase $last): string => rtrim(strtr(base64_encode((string) json_encode([$last->getRawOriginal($column), $last->number])), '+/', '-_'), '=')];
    }

    /**
     * @param  array<int, TestCase>  $cases
     *
     * @return list<CaseLine>
     */
    public function lines(array $cases, ?string $words = null): array
    {
        $marked = [];
        if (null !== $words && [] !== $cases) {
            $ids = array_map(static fn (TestCase $c): string => $c->id, $cases);
            $marks = "StartSel=\x01, StopSel=\x02";
            foreach (DB::table('cases')->whereIn('id', $ids)->selectRaw(
                "id, ts_headline('simple', title, to_tsquery('simple', ?), ?) as title, ts_headline('simple', left(words, 10000), to_tsquery('simple', ?), ?) as words",
                [$words, "{$marks}, HighlightAll=true", $words, "{$marks}, MaxWords=18, MinWords=8, MaxFragments=1"],
            )->get() as $row) {
                $marked[$row->id] = [self::parts($row->title), str_contains((string) $row->words, "\x01") ? self::parts($row->words) : []];
            }
        }

        return array_values(array_map(static fn (TestCase $c): CaseLine => CaseLine::from($c, ...($marked[$c->id] ?? [])), $cases));
    }

    /**
     * @return list<TextPart>
     */
    private static function parts(string $marked): array
    {
        $parts = [];
        foreach (preg_split("/(\x01[^\x02]*\x02)/", str_replace("\n", ' ', $marked), -1, \PREG_SPLIT_DELIM_CAPTURE | \PREG_SPLIT_NO_EMPTY) ?: [] as $piece) {
            $hit = "\x01" === $piece[0];
            $parts[] = new TextPart($hit ? trim($piece, "\x01\x02") : $piece, $hit);
        }

        return $parts;
    }
}
