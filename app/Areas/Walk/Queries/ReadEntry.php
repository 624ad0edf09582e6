<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Queries;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Cycles\Data\CycleSummary;
use LucidStep\App\Areas\Cycles\Queries\EntryLines;
use LucidStep\App\Areas\Cycles\Queries\ReadBoard;
use LucidStep\App\Areas\Defects\Data\LinkedDefect;
use LucidStep\App\Areas\Walk\Data\AttemptSummary;
use LucidStep\App\Areas\Walk\Data\EntryDetail;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\DefectLink;
use LucidStep\App\Models\Entry;

/**
 * Reads an entry with all its attempts and the defects linked to them.
 */
final readonly class ReadEntry
{
    public function __construct(private EntryLines $lines, private ReadBoard $boards) {}

    public function __invoke(Entry $entry): EntryDetail
    {
        $entry->load('cycle.build', 'cycle.project');
        $cycles = Collection::make([$entry->cycle]);
        $attempts = Attempt::query()
            ->where('entry_id', $entry->id)
            ->with('tester', 'build', 'configuration', 'namedEnvironment')
            ->orderByDesc('number')
            ->get();
        $links = DefectLink::query()->where('entry_id', $entry->id)->with('defect')->orderBy('created_at')->get()->unique('defect_id');

        return new EntryDetail(
            $this->lines->of(EntryLines::query()->where('entries.id', $entry->id), $entry->cycle->project, $cycles)[0],
            CycleSummary::from($entry->cycle, $this->boards->counts([$entry->cycle_id])[$entry->cycle_id] ?? []),
            array_values($attempts->map(AttemptSummary::from(...))->all()),
            array_values($links->map(LinkedDefect::from(...))->all()),
            Gate::allows('record', $entry),
        );
    }
}
