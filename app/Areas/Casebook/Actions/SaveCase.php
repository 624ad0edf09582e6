<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Casebook\Data\CaseLine;
use LucidStep\App\Areas\Casebook\Data\CaseMerge;
use LucidStep\App\Areas\Casebook\Data\CaseSaved;
use LucidStep\App\Areas\Casebook\Data\MergedStepLine;
use LucidStep\App\Areas\Casebook\Data\MergedTextLine;
use LucidStep\App\Areas\Casebook\Exceptions\CaseConflict;
use LucidStep\App\Areas\Casebook\Jobs\FindSimilarCasesAmong;
use LucidStep\App\Areas\Casebook\Queries\CheckCase;
use LucidStep\App\Areas\Casebook\Queries\ResourceMapper;
use LucidStep\App\Models\CaseVersion;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\App\Support\Problems\SavedMeanwhile;
use LucidStep\Core\Casebook\CaseText;
use LucidStep\Core\Casebook\MergedField;
use LucidStep\Core\Casebook\MergedStep;
use LucidStep\Core\Casebook\Review;
use LucidStep\Core\Casebook\ReviewAct;
use LucidStep\Core\Casebook\Step;
use LucidStep\Core\Casebook\ThreeWay;

/**
 * Makes and changes a case.
 */
final readonly class SaveCase
{
    public function __construct(private CaseWriterFactory $writers, private CheckCase $check) {}

    /**
     * @param  array<string, mixed>  $input
     */
    public function make(Project $project, User $user, array $input): CaseSaved
    {
        $take = new CaseInput($project);
        $text = $take->text($input);
        $fields = $take->fields($input, $take->fresh($user->id));
        $writer = $this->writers->for($project, $user);
        ['id' => $id] = $writer->add($text, $fields);
        $writer->end();

        return $this->answer($id, true);
    }

    /**
     * @param  array<string, mixed>  $input    text and fields
     * @param  int  $revision what the person began from
     *
     * @throws Conflict when the case was saved by another meanwhile (412), or is in the bin
     */
    public function save(TestCase $case, User $user, array $input, int $revision): CaseSaved
    {
        $locked = $this->writers->lock($case->id);
        self::refuseBinned($locked);
        if ($locked->revision !== $revision) {
            $last = DB::table('case_log')
                ->join('users', 'users.id', '=', 'case_log.actor_id')
                ->where('case_id', $case->id)
                ->orderByDesc('case_log.id')
                ->first(['users.name', 'case_log.at']);
            throw SavedMeanwhile::ofCase($last?->name, $locked->revision);
        }
        $project = Project::query()->findOrFail($case->project_id);
        $take = new CaseInput($project);
        $text = $take->text($input);
        $fields = $take->fields($input, CaseFields::of($locked));
        $before = $locked->version_id;
        $writer = $this->writers->for($project, $user);
        $writer->change($locked, $text, $fields);
        $writer->end();

        return $this->answer($case->id, $locked->version_id !== $before);
    }

    /**
     * My changes and those saved since I began, brought together; nothing is written.
     *
     * @param  array<string, mixed>  $mine
     * @param  int  $version the version that I began from
     */
    public function merge(TestCase $case, array $mine, int $version): CaseMerge
    {
        $case->load('version.steps', 'version.author');
        $base = CaseVersion::query()->where('case_id', $case->id)->where('number', $version)->with('steps')->first() ?? $case->version;
        $merged = ThreeWay::of($base->text(), CaseText::fromArray($mine), $case->version->text());
        $step = static fn(?Step $s): mixed => null === $s ? null : ResourceMapper::step($s);

        return new CaseMerge(
            $case->revision,
            (string) $case->version->author?->name,
            $case->version->created_at->toIso8601ZuluString(),
            $merged->conflicts(),
            array_map(
                static fn(string $name, MergedField $f): MergedTextLine => new MergedTextLine(
                    $name,
                    $f->outcome,
                    $f->base,
                    $f->mine,
                    $f->theirs,
                ),
                array_keys($merged->fields),
                $merged->fields,
            ),
            array_map(
                static fn(MergedStep $s): MergedStepLine => new MergedStepLine(
                    $s->outcome,
                    $step($s->base),
                    $step($s->mine),
                    $step($s->theirs),
                    $step($s->result),
                ),
                $merged->steps,
            ),
            ResourceMapper::files($merged->result()->files),
        );
    }

    /**
     * An old version becomes the newest.
     */
    public function bringBack(TestCase $case, User $user, int $number): CaseSaved
    {
        $locked = $this->writers->lock($case->id);
        self::refuseBinned($locked);
        $version =
            CaseVersion::query()->where('case_id', $case->id)->where('number', $number)->with('steps')->first() ??
            throw ValidationException::withMessages(['version' => "There is no version {$number}."]);
        $project = Project::query()->findOrFail($case->project_id);
        $text = $version->text();
        // Its table may be in the bin by now; the case then stands without one, and its steps say so.
        if (null !== $text->table && !DB::table('data_tables')->where('id', $text->table)->whereNull('binned_at')->exists()) {
            $text = CaseText::fromArray([...$text->toArray(), 'table' => null]);
        }
        $writer = $this->writers->for($project, $user);
        $changed = $writer->change($locked, $text, CaseFields::of($locked), 'brought_back', ['comment' => "Version {$number}"]);
        $writer->end();

        return $this->answer($case->id, $changed);
    }

    public function review(TestCase $case, User $user, ReviewAct $act, string $comment): CaseSaved
    {
        $locked = $this->writers->lock($case->id);
        self::refuseBinned($locked);
        $kind = match ($act) {
            ReviewAct::Ask => 'review_asked',
            ReviewAct::Approve => 'approved',
            ReviewAct::SendBack => 'returned',
        };
        $state = Review::after($locked->state, $act, $locked->approved_version_id === $locked->version_id);
        if (null === $state) {
            throw CaseConflict::wrongState($locked->state);
        }
        if (ReviewAct::SendBack === $act && '' === trim($comment)) {
            throw ValidationException::withMessages(['comment' => 'Say what is to be changed.']);
        }
        // What the writer refuses to approve is not asked for either.
        $errors = ReviewAct::SendBack === $act ? [] : $this->check->errors($case->project_id, $locked->version->text());
        if ([] !== $errors) {
            throw ValidationException::withMessages(['steps' => $errors]);
        }
        $writer = $this->writers->for(Project::query()->findOrFail($case->project_id), $user);
        if (!$writer->change($locked, null, CaseFields::of($locked)->with(['state' => $state]), $kind, ['comment' => trim($comment)])) {
            // Approved once, changed since, and now approved as it is.
            $locked->forceFill(['approved_version_id' => $locked->version_id, 'revision' => $locked->revision + 1])->save();
            $writer->log($locked->id, $kind, ['comment' => trim($comment)]);
        }
        $writer->end();

        return $this->answer($case->id, false);
    }

    public static function refuseBinned(TestCase $case): void
    {
        if (null !== $case->binned_at) {
            throw CaseConflict::isBinned();
        }
    }

    private function answer(string $id, bool $textChanged): CaseSaved
    {
        $case = TestCase::query()->with('owner', 'version.steps')->findOrFail($id);
        if ($textChanged) {
            FindSimilarCasesAmong::dispatch([$case->id]);
        }

        return new CaseSaved(
            CaseLine::from($case),
            $case->version->number,
            $textChanged,
            ResourceMapper::problems($this->check->problems($case->project_id, $case->version->text())),
        );
    }
}
