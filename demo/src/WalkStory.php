<?php

declare(strict_types=1);

namespace LucidStep\Demo;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Carbon;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Defects\Actions\FileDefect;
use LucidStep\App\Areas\Defects\Actions\LinkDefect;
use LucidStep\App\Areas\Defects\Data\Filing;
use LucidStep\App\Areas\Walk\Actions\RecordInAttempt;
use LucidStep\App\Areas\Walk\Actions\RequestRetest;
use LucidStep\App\Areas\Walk\Actions\StartAttempt;
use LucidStep\App\Areas\Walk\Actions\UploadEvidence;
use LucidStep\App\Areas\Walk\Commands\AddEvidenceCommand;
use LucidStep\App\Areas\Walk\Commands\CompareCommand;
use LucidStep\App\Areas\Walk\Commands\FinishCommand;
use LucidStep\App\Areas\Walk\Commands\NoteCommand;
use LucidStep\App\Areas\Walk\Commands\Payload;
use LucidStep\App\Areas\Walk\Commands\RoundCommand;
use LucidStep\App\Areas\Walk\Commands\VerdictCommand;
use LucidStep\App\Areas\Walk\Queries\DraftDefect;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\Core\Access\Role;

/**
 * Walks an entry as its story says, through the actions of the walk.
 *
 * A story is what happened, acts joined by ">>": `pass` or `pass: note`, `open 3` (three steps passed, then left), `na: why`,
 * `blocked 2: reason | what it waits for`, `retest: why`, and `fail 4: what happened | defect | picture | marked`, where the
 * defect is a key, or `new: title`, and the last a picture with what was drawn on it. `pass: note | picture` compares the
 * picture with the reference of its step, where one shows some, `open 3: | pictures` keeps pictures of a filmstrip, and
 * `rounds 3: why` walks three rounds and leaves the last one out. `late 2: what happened` is what a second device brings once the
 * attempt is finished. `on: 4.2.0-5` names the build that what follows up to a retest was walked on.
 */
final class WalkStory
{
    private Project $project;

    /** @var array<string, User> */
    private array $people = [];

    /** @var array<string, Carbon> where each person's day stands */
    private array $clocks = [];

    private Carbon $start;

    public function __construct(
        private readonly StartAttempt $startAttempt,
        private readonly RecordInAttempt $record,
        private readonly UploadEvidence $upload,
        private readonly RequestRetest $askRetest,
        private readonly FileDefect $file,
        private readonly LinkDefect $link,
        private readonly DraftDefect $draft,
    ) {}

    /**
     * @param  array<string, User>  $people by the name of their address
     */
    public function begin(Project $project, array $people, Carbon $start): void
    {
        $this->project = $project;
        $this->people = $people;
        $this->start = $start;
        $this->clocks = [];
    }

    public function __invoke(Entry $entry, string $story): void
    {
        $tester = collect($this->people)->firstWhere('id', $entry->assignee_id) ?? $this->people['tobias'];
        $on = [];
        foreach (array_map(trim(...), explode('>>', $story)) as $act) {
            if (1 !== preg_match('/^(\w+)\s*(\d*)\s*:?\s*(.*)$/su', $act, $m)) {
                throw new \LogicException("Not an act of a story: {$act}");
            }
            $parts = array_map(trim(...), explode('|', $m[3]));
            $this->tick($tester, 240);
            if ('retest' === $m[1]) {
                ($this->askRetest)($entry, $this->people['maren'], $parts[0]);
                $on = [];

                continue;
            }
            if ('on' === $m[1]) {
                $on = ['build_id' => Build::query()->where('project_id', $this->project->id)->where('name', $parts[0])->valueOrFail('id')];

                continue;
            }
            if ('late' === $m[1]) {
                $this->late(Attempt::query()->findOrFail($entry->refresh()->last_attempt_id), $tester, (int) $m[2], $parts[0]);

                continue;
            }
            $attempt = ($this->startAttempt)($entry, $tester, Role::Tester, $this->stamp(), on: $on);
            match ($m[1]) {
                'pass' => $this->pass($attempt, $tester, $parts),
                'open' => $this->open($attempt, $tester, (int) $m[2], $parts),
                'rounds' => $this->rounds($attempt, $tester, (int) $m[2], $parts[0]),
                'fail' => $this->fail($attempt, $tester, (int) $m[2], $parts),
                'blocked' => $this->block($attempt, $tester, (int) $m[2], $parts),
                'na' => $this->end($attempt, $tester, ['verdict' => 'not_applicable', 'note' => $parts[0]]),
                default => throw new \InvalidArgumentException("No such act in a story: {$act}"),
            };
        }
    }

    /**
     * @param  list<string>  $parts
     */
    private function pass(Attempt $attempt, User $tester, array $parts): void
    {
        $last = count($attempt->snapshot['steps']);
        $this->steps($attempt, $tester, $last);
        if ('' !== $parts[0]) {
            ($this->record)(
                $attempt,
                $tester,
                NoteCommand::fromPayload(new Payload(['round' => 1, 'step' => $last, 'note' => $parts[0]])),
                $this->stamp(),
            );
        }
        if (isset($parts[1])) {
            $shown = array_filter((array) $attempt->snapshot['steps'], static fn(array $s): bool => [] !== ($s['files'] ?? []));
            $step = end($shown) ?: ['position' => $last];
            $seen = $this->picture($attempt, $tester, $parts[1], (int) $step['position'], 'capture');
            if (isset($step['files'])) {
                $this->upload->change($seen, $tester, new CompareCommand($seen->id, $step['files'][0]['sha256']), $this->stamp());
            }
        }
        $this->end($attempt, $tester, []);
    }

    /**
     * @param  list<string>  $parts
     */
    private function open(Attempt $attempt, User $tester, int $count, array $parts): void
    {
        $this->steps($attempt, $tester, $count);
        foreach (array_filter(explode(' ', $parts[1] ?? '')) as $frame) {
            $this->tick($tester, 10);
            $this->picture($attempt, $tester, $frame, $count + 1, 'filmstrip');
        }
    }

    private function late(Attempt $attempt, User $tester, int $step, string $happened): void
    {
        $clock = static fn(int $counter): DeviceStamp => new DeviceStamp(Carbon::now(), $counter);
        ($this->record)(
            $attempt,
            $tester,
            VerdictCommand::fromPayload(new Payload(['round' => 1, 'step' => $step, 'verdict' => 'fail', 'happened' => $happened])),
            $clock(1),
        );
        ($this->record)(
            $attempt,
            $tester,
            NoteCommand::fromPayload(
                new Payload(['round' => 1, 'step' => $step, 'note' => 'Seen on the tablet at the quay, without a network']),
            ),
            $clock(2),
        );
        ($this->record)(
            $attempt,
            $tester,
            FinishCommand::fromPayload(new Payload(['verdict' => null, 'note' => '', 'active_ms' => 95_000])),
            $clock(3),
        );
    }

    private function rounds(Attempt $attempt, User $tester, int $count, string $why): void
    {
        $steps = \count($attempt->snapshot['steps']);
        for ($round = 1; $round <= $count; ++$round) {
            for ($step = 1; $step <= $steps; ++$step) {
                $this->tick($tester, 24);
                ($this->record)(
                    $attempt,
                    $tester,
                    VerdictCommand::fromPayload(
                        new Payload(['round' => $round, 'step' => $step, 'verdict' => 'pass', 'active_ms' => 24_000]),
                    ),
                    $this->stamp(),
                );
            }
        }
        ($this->record)(
            $attempt,
            $tester,
            RoundCommand::fromPayload(new Payload(['round' => $attempt->rounds()->count(), 'act' => 'skip', 'reason' => $why])),
            $this->stamp(),
        );
    }

    private function picture(Attempt $attempt, User $tester, string $file, int $step, string $source): Evidence
    {
        [$evidence] = $this->upload->add(
            $attempt,
            $tester,
            self::upload($file),
            AddEvidenceCommand::fromPayload(
                new Payload(['id' => (string) Str::uuid7(), 'round' => 1, 'step' => $step, 'source' => $source]),
            ),
            $this->stamp(),
        );

        return $evidence ?? throw new \LogicException("The story's picture arrives too late: {$file}");
    }

    private static function upload(string $file): UploadedFile
    {
        return new UploadedFile(base_path("demo/evidence/{$file}"), $file, null, null, true);
    }

    /**
     * @param  list<string>  $parts
     */
    private function fail(Attempt $attempt, User $tester, int $step, array $parts): void
    {
        $step = min($step, \count($attempt->snapshot['steps']));
        $this->steps($attempt, $tester, $step - 1);
        $this->tick($tester, 75);
        ($this->record)(
            $attempt,
            $tester,
            VerdictCommand::fromPayload(
                new Payload(['round' => 1, 'step' => $step, 'verdict' => 'fail', 'happened' => $parts[0], 'active_ms' => 61_000]),
            ),
            $this->stamp(),
        );
        if (isset($parts[2])) {
            $seen = $this->picture($attempt, $tester, $parts[2], $step, 'paste');
            if (isset($parts[3])) {
                $this->upload->markUp(
                    $seen,
                    $tester,
                    [
                        'shapes' => [
                            ['kind' => 'box', 'x' => 40, 'y' => 180, 'width' => 480, 'height' => 60],
                            ['kind' => 'pin', 'x' => 40, 'y' => 180, 'number' => 1],
                        ],
                        'width' => 900,
                        'height' => 620,
                    ],
                    self::upload($parts[3]),
                    $this->stamp(),
                );
            }
        }
        $attempt->refresh();
        if (str_starts_with($parts[1] ?? '', 'new:')) {
            $draft = ($this->draft)($attempt, 1, $step);
            ($this->file)($this->project, $tester, new Filing($draft->fields(), null, $attempt, 1, $step));
        } elseif (isset($parts[1])) {
            ($this->link)(Defect::query()->where('key', $parts[1])->firstOrFail(), $tester, $attempt, 1, $step);
        }
        $this->end($attempt, $tester, []);
    }

    /**
     * @param  list<string>  $parts
     */
    private function block(Attempt $attempt, User $tester, int $step, array $parts): void
    {
        $this->steps($attempt, $tester, $step - 1);
        ($this->record)(
            $attempt,
            $tester,
            VerdictCommand::fromPayload(
                new Payload(['round' => 1, 'step' => $step, 'verdict' => 'blocked', 'reason' => $parts[0], 'waits_on' => $parts[1] ?? '']),
            ),
            $this->stamp(),
        );
        $this->end($attempt, $tester, []);
    }

    private function steps(Attempt $attempt, User $tester, int $count): void
    {
        for ($step = 1; $step <= $count; ++$step) {
            $seconds = 18 + (($attempt->number * 31 + $step * 17 + \strlen((string) $attempt->snapshot['title']) * 7) % 55);
            $this->tick($tester, $seconds);
            ($this->record)(
                $attempt,
                $tester,
                VerdictCommand::fromPayload(
                    new Payload(['round' => 1, 'step' => $step, 'verdict' => 'pass', 'active_ms' => $seconds * 1000]),
                ),
                $this->stamp(),
            );
        }
    }

    /**
     * @param  array{verdict?: string, note?: string}  $fields
     */
    private function end(Attempt $attempt, User $tester, array $fields): void
    {
        $this->tick($tester, 15);
        ($this->record)($attempt, $tester, FinishCommand::fromPayload(new Payload($fields)), $this->stamp());
    }

    private function tick(User $tester, int $seconds): void
    {
        $clock = ($this->clocks[$tester->id] ?? $this->start->copy())->addSeconds($seconds);
        $this->clocks[$tester->id] = $clock->copy();
        Carbon::setTestNow($clock);
    }

    private function stamp(): DeviceStamp
    {
        return new DeviceStamp(Carbon::now());
    }
}
