<?php

declare(strict_types=1);

namespace LucidStep\App\Actions\Casebook;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Http\Resources\CaseDetail;
use LucidStep\App\Http\Resources\CaseLine;
use LucidStep\App\Http\Resources\CasePage;
use LucidStep\App\Http\Resources\CaseWalk;
use LucidStep\App\Http\Resources\DefectLine;
use LucidStep\App\Http\Resources\FolderLine;
use LucidStep\App\Http\Resources\StepText;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Folder;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;

/**
 * Reads the casebook.
 */
final class ReadCasebook
{
    private const PAGE = 200;

    /**
     * @return list<FolderLine> parents before children, in order
     */
    public function folders(Project $project): array
    {
        $counts = DB::table('cases')->where('project_id', $project->id)->whereNull('binned_at')->groupBy('folder_id')->get(['folder_id', DB::raw('count(*) as n')])->pluck('n', 'folder_id');

        return array_values(Folder::query()->where('project_id', $project->id)->orderBy('position')->get()
            ->map(static fn (Folder $f): FolderLine => new FolderLine($f->id, $f->parent_id, $f->name, (int) ($counts[$f->id] ?? 0)))->all());
    }

    public function cases(Project $project, string $folder = '', string $words = '', int $after = 0): CasePage
    {
        $query = TestCase::query()->where('project_id', $project->id)->whereNull('binned_at');
        if (Str::isUuid($folder)) {
            $query->where('folder_id', $folder);
        }
        foreach (preg_split('/\s+/u', trim(mb_substr($words, 0, 200)), -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $word) {
            $like = '%'.addcslashes($word, '%_\\').'%';
            $query->where(static fn ($q) => $q->where('title', 'ilike', $like)->orWhere('key', 'ilike', $like));
        }
        $total = $query->count();
        $found = $query->where('position', '>', $after)->with('owner')->orderBy('position')->limit(self::PAGE + 1)->get();
        $page = $found->take(self::PAGE);

        return new CasePage(array_values($page->map(CaseLine::from(...))->all()), $found->count() > self::PAGE ? (string) $page->last()?->position : null, $total);
    }

    public function case(TestCase $case): CaseDetail
    {
        $case->load('owner', 'version.steps', 'folder');
        $walks = Entry::query()->where('case_id', $case->id)->with('cycle', 'configuration')->orderByDesc('id')->limit(20)->get();
        $defects = Defect::query()->where('project_id', $case->project_id)
            ->where(static fn ($q) => $q->where('case_id', $case->id)->orWhereHas('links.entry', static fn ($e) => $e->where('case_id', $case->id)))
            ->with('reporter', 'assignee', 'case', 'build')->orderByDesc('number')->limit(50)->get();

        return new CaseDetail(
            CaseLine::from($case), $case->version->number, $case->version->objective, $case->version->preconditions, $case->version->postconditions,
            array_values($case->version->steps->map(StepText::from(...))->all()), $this->path($case), array_values($walks->map(CaseWalk::from(...))->all()),
            array_values($defects->map(DefectLine::from(...))->all()),
        );
    }

    /**
     * @return list<string> folder names, outermost first
     */
    private function path(TestCase $case): array
    {
        $rows = DB::select(
            'with recursive up as (select id, parent_id, name, 1 as depth from folders where id = ? union all select f.id, f.parent_id, f.name, up.depth + 1 from folders f join up on f.id = up.parent_id) select name from up order by depth desc',
            [$case->folder_id],
        );

        return array_map(static fn (object $r): string => $r->name, $rows);
    }
}
