<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Defects\Data\DefectLine;
use LucidStep\App\Areas\Defects\Data\LikelyDefect;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Project;
use LucidStep\Core\Defects\DefectLikeness;

/**
 * Finds the defects that one may be about to file again: candidates by words and by case from the database, how like each is by the
 * core. Those of this very step come first, whatever their words; closed ones are there as well.
 */
final readonly class FindLikely
{
    /** So many candidates are looked at closely: those of which the database thinks most. */
    private const CANDIDATES = 60;

    /** Of more that fit, the newest are looked at. */
    private const RANKED = 800;

    private const MOST = 8;

    /** More words of a report are not looked for. */
    private const WORDS = 40;

    /** So many words are paired. */
    private const PAIRED = 8;

    public function __construct(private KnownDefects $known) {}

    /**
     * @param  ?Attempt  $attempt in which it was met
     * @param  ?int  $step      at which of its steps, from 1
     * @param  string  $component that it is filed under, by value
     *
     * @return list<LikelyDefect> those of this step first, then the likest
     */
    public function __invoke(
        Project $project,
        string $title,
        string $actual,
        ?Attempt $attempt = null,
        ?int $step = null,
        string $component = '',
    ): array {
        $snapshot = $attempt->snapshot ?? [];
        $mine = new DefectLikeness(
            $title,
            $actual,
            (string) ($snapshot['title'] ?? ''),
            isset($snapshot['case_id']) ? (string) $snapshot['case_id'] : null,
            null === $step ? null : $snapshot['steps'][$step - 1]['action'] ?? null,
            '' === $component ? null : $component,
        );
        $here = null === $attempt ? [] : $this->known->ids($attempt, $step);
        $linked =
            null === $attempt
                ? []
                : DB::table('defect_links')->where('attempt_id', $attempt->id)->where('step', $step)->pluck('defect_id')->all();
        $like = [];
        foreach ($this->texts(array_values(array_diff([...$here, ...$this->candidates($project, $mine)], $linked))) as $row) {
            $isHere = \in_array($row->id, $here, true);
            $other = new DefectLikeness(
                $row->title,
                $row->actual,
                $row->case_title ?? '',
                $row->case_id,
                $isHere ? $mine->step : null,
                '' === $row->component ? null : $row->component,
            );
            $likeness = $mine->with($other);
            if ($isHere || $likeness >= DefectLikeness::OFFERED) {
                $like[$row->id] = [$isHere, round($likeness, 3), -$row->number, $other];
            }
        }
        uasort($like, static fn(array $a, array $b): int => \array_slice($b, 0, 3) <=> \array_slice($a, 0, 3));
        $like = \array_slice($like, 0, self::MOST, true);

        return array_map(static function (DefectLine $line) use ($like, $mine): LikelyDefect {
            [$isHere, $likeness, , $other] = $like[$line->id];

            return new LikelyDefect(
                $line,
                $likeness,
                $isHere,
                $mine->sameCase($other),
                $mine->sameComponent($other),
                $mine->shared($other),
            );
        }, DefectLines::of(array_map(strval(...), array_keys($like))));
    }

    /**
     * @param  list<string>  $ids
     *
     * @return iterable<\stdClass> what each says, as rows
     */
    private function texts(array $ids): iterable
    {
        return [] === $ids
            ? []
            : DB::table('defects')
                ->leftJoin('cases', 'cases.id', '=', 'case_id')
                ->whereIn('defects.id', $ids)
                ->get(['defects.id', 'defects.number', 'defects.title', 'actual', 'case_id', 'component', 'cases.title as case_title']);
    }

    /**
     * @return list<string> ids of what has a word of it, the best matches first, and of what is of the same case
     */
    private function candidates(Project $project, DefectLikeness $mine): array
    {
        $words = array_map(
            static fn(string $w): string => "'" . str_replace(["'", '\\'], ["''", '\\\\'], $w) . "'",
            \array_slice($mine->words(), 0, self::WORDS),
        );
        $ids =
            [] === $words
                ? []
                : DB::select(
                    'select id from (select id, number, said from defects, lucid_any_word(?) q where project_id = ? and said @@ q ' .
                        'order by number desc limit ?) newest, lucid_any_word(?) words order by ts_rank(said, words) desc, number ' .
                        'desc limit ?',
                    [self::query($words), $project->id, self::RANKED, implode(' | ', $words), self::CANDIDATES],
                );
        $ofCase =
            null === $mine->case
                ? []
                : Defect::query()
                    ->where('project_id', $project->id)
                    ->where('case_id', $mine->case)
                    ->orderByDesc('number')
                    ->limit(self::CANDIDATES)
                    ->pluck('id')
                    ->all();

        return array_values(array_unique([...array_map(strval(...), array_column($ids, 'id')), ...array_map(strval(...), $ofCase)]));
    }

    /**
     * One word in common is chance where there are many: from three on two of them are asked for, which the index finds by itself.
     *
     * @param  non-empty-list<string>  $words
     */
    private static function query(array $words): string
    {
        if (\count($words) < 3) {
            return implode(' | ', $words);
        }
        // Long words say the most.
        usort($words, static fn(string $a, string $b): int => mb_strlen($b) <=> mb_strlen($a));
        $words = \array_slice($words, 0, self::PAIRED);
        $pairs = [];
        foreach ($words as $at => $word) {
            foreach (\array_slice($words, $at + 1) as $other) {
                $pairs[] = "({$word} & {$other})";
            }
        }

        return implode(' | ', $pairs);
    }
}
