<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Casebook\Data\BulkEditResult;
use LucidStep\App\Areas\Casebook\Data\RefusedCase;
use LucidStep\App\Models\BulkAct;
use LucidStep\App\Models\Folder;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Suite;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Problems\AlreadyDone;
use LucidStep\Core\Casebook\CaseText;

/**
 * Takes one act on many cases back: what was changed again since is left and named.
 */
final readonly class UndoBulkEdit
{
    public function __construct(private CaseWriterFactory $writers, private RestoreFolders $folders, private CaseNeeds $needs) {}

    /**
     * Takes an act back: what was changed again since is left and named.
     */
    public function __invoke(BulkAct $act, Project $project, User $user): BulkEditResult
    {
        $act = BulkAct::query()->where('subject', 'case')->lockForUpdate()->findOrFail($act->id);
        if (null !== $act->undone_at) {
            throw AlreadyDone::undone();
        }
        $rows = DB::table('bulk_act_cases')->where('act_id', $act->id)->get()->keyBy('case_id');
        $writer = $this->writers->for($project, $user);
        $refused = [];
        $done = 0;
        foreach (array_chunk($rows->keys()->all(), 500) as $ids) {
            $cases = TestCase::query()->whereIn('id', $ids)->lockForUpdate()->with('requirements', 'version.steps')->get();
            ($this->folders)($cases->filter(static fn(TestCase $c): bool => null !== $c->binned_at)->pluck('folder_id')->all());
            foreach ($cases as $case) {
                $row = $rows[$case->id];
                if ($case->revision !== (int) $row->revision) {
                    $refused[] = new RefusedCase($case->key, $case->title, 'It was changed again since.');

                    continue;
                }
                $this->revert($case, json_decode($row->before, true) ?: [], (bool) $row->made, $project, $user, $writer);
                $done++;
            }
        }
        $writer->end();
        $this->takeAlong($act);
        $act->update(['undone_at' => Carbon::now()]);

        return new BulkEditResult(
            null,
            'Undone: ' . mb_strtolower(mb_substr($act->title, 0, 1)) . mb_substr($act->title, 1),
            $done,
            [],
            $refused,
        );
    }

    /**
     * The folders that were made for the cases go with them, where nothing else is in them by now, and so do suites.
     */
    private function takeAlong(BulkAct $act): void
    {
        Suite::query()
            ->whereIn('id', $act->suites)
            ->whereNull('binned_at')
            ->update(['binned_at' => Carbon::now()]);
        foreach (array_reverse($act->folders) as $folder) {
            Folder::query()
                ->whereKey($folder)
                ->whereNotExists(static fn($q) => $q->from('cases')->whereColumn('folder_id', 'folders.id')->whereNull('binned_at'))
                ->whereNotExists(
                    static fn($q) => $q
                        ->from('folders as below')
                        ->whereColumn('below.parent_id', 'folders.id')
                        ->whereNull('below.binned_at'),
                )
                ->update(['binned_at' => Carbon::now()]);
        }
    }

    /**
     * @param  array<string, mixed>  $before
     */
    private function revert(TestCase $case, array $before, bool $made, Project $project, User $user, CaseWriter $writer): void
    {
        if ($made) {
            $case->forceFill(['binned_at' => Carbon::now(), 'binned_by_id' => $user->id, 'revision' => $case->revision + 1])->save();
            $writer->log($case->id, 'binned', ['comment' => 'Undone']);

            return;
        }
        if (\array_key_exists('binned_at', $before)) {
            $case->forceFill(['binned_at' => $before['binned_at'], 'revision' => $case->revision + 1])->save();
            $writer->log($case->id, null === $before['binned_at'] ? 'restored' : 'binned', ['comment' => 'Undone']);

            return;
        }
        if (isset($before['position'])) {
            $case->position = (float) $before['position'];
        }
        if (isset($before['needs'])) {
            $this->needs->replace($project, $user, [$case->id => $before['needs']]);
        }
        $text = isset($before['text']) && \is_array($before['text']) ? CaseText::fromArray($before['text']) : null;
        if (!$writer->change($case, $text, CaseFields::of($case)->with($before), 'edited', ['comment' => 'Undone'])) {
            $case->save();
        }
    }
}
