<?php

declare(strict_types=1);

namespace LucidStep\Demo;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Carbon;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Defects\Actions\AttachFile;
use LucidStep\App\Areas\Defects\Actions\ChangeDefectState;
use LucidStep\App\Areas\Defects\Actions\CommentOnDefect;
use LucidStep\App\Areas\Defects\Actions\EditDefect;
use LucidStep\App\Areas\Defects\Actions\FileDefect;
use LucidStep\App\Areas\Defects\Actions\RelateDefects;
use LucidStep\App\Areas\Defects\Actions\SetUpTracker;
use LucidStep\App\Areas\Defects\Data\DefectMove;
use LucidStep\App\Areas\Defects\Data\Filing;
use LucidStep\App\Areas\Defects\Tracker\TrackerQueue;
use LucidStep\App\Areas\Setup\Actions\SaveLists;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Revisions\Seen;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Defects\DefectField;
use LucidStep\Core\Defects\DefectRelation;
use LucidStep\Core\Defects\DefectState;

/**
 * The defects of the demo, through the actions that people use: what was filed beside the walks, and what was done with all of them.
 *
 * `defects.csv` has those that were filed on no walk, `defect-acts.csv` what happened to each since: a state (with the build of a fix,
 * or the defect that came first), `assigned` to somebody, `says` (with a picture of `evidence/`), a relation to another, `tracker`.
 * A time is the days before today and the clock, such as "-17 14:20".
 */
final class DefectStory
{
    private const COMPONENTS = ['Booking page', 'Fares', 'Timetable', 'Refunds', 'Boarding desk'];

    private Project $project;

    /** @var array<string, User> */
    private array $people = [];

    private Carbon $today;

    public function __construct(
        private readonly FileDefect $file,
        private readonly ChangeDefectState $move,
        private readonly EditDefect $edit,
        private readonly CommentOnDefect $talk,
        private readonly AttachFile $attach,
        private readonly RelateDefects $relate,
        private readonly SaveLists $lists,
        private readonly SetUpTracker $setUp,
        private readonly TrackerQueue $queue,
        private readonly Memberships $memberships,
    ) {}

    /**
     * @param  array<string, User>  $people by the name of their address
     */
    public function begin(Project $project, array $people, Carbon $today): void
    {
        [$this->project, $this->people, $this->today] = [$project, $people, $today];
        $this->lists->items(
            $project,
            'component',
            array_map(static fn(string $name): array => ['name' => $name], self::COMPONENTS),
            Seen::of([]),
        );
        $tracker = (string) config('lucid.practice_url');
        if ('' !== $tracker) {
            $this->setUp->save($project, [
                'address' => "{$tracker}/tracker/api",
                'token' => 'practice',
                'enabled' => true,
                'sends_each' => false,
            ]);
        }
    }

    /**
     * Files those that were filed on no walk.
     *
     * @param  array{int, int}  $numbers the first and the last
     */
    public function file(array $numbers): void
    {
        foreach (CsvFile::rows(base_path('demo/defects.csv')) as $row) {
            $number = (int) substr($row['key'], \strlen('SKR-D'));
            if ($number < $numbers[0] || $number > $numbers[1]) {
                continue;
            }
            $this->at($row['when']);
            $fields = array_intersect_key($row, array_flip(array_column(DefectField::cases(), 'value')));
            $fields['build_id'] = $this->build($row['build']);
            $fields['component'] = str_replace(' ', '_', mb_strtolower($row['component']));
            $fields['assignee_id'] = '' === $row['assignee'] ? null : $this->people[$row['assignee']]->id;
            $case = '' === $row['case'] ? null : TestCase::query()->where('key', $row['case'])->firstOrFail();
            $defect = ($this->file)($this->project, $this->people[$row['by']], new Filing($fields, case: $case));
            if ($defect->key !== $row['key']) {
                throw new \LogicException("{$row['key']} was filed as {$defect->key}.");
            }
        }
    }

    /**
     * Does what was done with them.
     */
    public function act(): void
    {
        foreach (CsvFile::rows(base_path('demo/defect-acts.csv')) as $row) {
            $this->at($row['when']);
            $defect = $this->defect($row['defect']);
            $who = $this->people[$row['who']];
            $relation = DefectRelation::tryFrom($row['act']);
            match (true) {
                'says' === $row['act'] => $this->say($defect, $who, $row['words'], $row['value']),
                'tracker' === $row['act'] => $this->queue->file($defect, $who),
                'assigned' === $row['act'] => ($this->edit)(
                    $defect,
                    $who,
                    [DefectField::Assignee->value => $defect->assignee_id],
                    [DefectField::Assignee->value => $this->people[$row['value']]->id],
                    $this->mayFile($who),
                ),
                null !== $relation => $this->relate->add($defect, $who, $relation, $this->defect($row['value'])),
                default => $this->move($defect, $who, DefectState::from($row['act']), $row['value'], $row['words']),
            };
        }
    }

    /**
     * @param  string  $picture that goes along; empty: none
     */
    private function say(Defect $defect, User $who, string $words, string $picture): void
    {
        $id = (string) Str::uuid7();
        if ('' !== $picture) {
            $upload = new UploadedFile(base_path("demo/evidence/{$picture}"), $picture, null, null, true);
            $this->attach->add($defect, $who, $upload, $picture, (string) Str::uuid7(), $id);
        }
        $this->talk->write($defect, $who, $words, $id);
    }

    private function move(Defect $defect, User $who, DefectState $to, string $value, string $words): void
    {
        $move = new DefectMove(
            $to,
            $words,
            build: DefectState::Fixed === $to ? $this->build($value) : null,
            of: DefectState::Duplicate === $to ? $this->defect($value) : null,
        );
        ($this->move)($defect, $who, $move, $this->mayFile($who));
    }

    private function mayFile(User $who): bool
    {
        return $this->memberships->may($who, $this->project->id, Permission::FileDefects);
    }

    private function at(string $when): void
    {
        [$days, $clock] = explode(' ', $when);
        Carbon::setTestNow($this->today->copy()->addDays((int) $days)->setTimeFromTimeString($clock));
    }

    private function build(string $name): string
    {
        return (string) Build::query()->where('project_id', $this->project->id)->where('name', $name)->valueOrFail('id');
    }

    private function defect(string $key): Defect
    {
        return Defect::query()->where('project_id', $this->project->id)->where('key', $key)->firstOrFail();
    }
}
