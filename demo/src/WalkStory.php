<?php

declare(strict_types=1);

namespace LucidStep\Demo;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Carbon;
use Illuminate\Support\Str;
use LucidStep\App\Actions\Cycles\AskRetest;
use LucidStep\App\Actions\Defects\DraftDefect;
use LucidStep\App\Actions\Defects\FileDefect;
use LucidStep\App\Actions\Defects\LinkDefect;
use LucidStep\App\Actions\Walk\AddEvidence;
use LucidStep\App\Actions\Walk\DeviceStamp;
use LucidStep\App\Actions\Walk\FinishAttempt;
use LucidStep\App\Actions\Walk\RecordVerdict;
use LucidStep\App\Actions\Walk\StartAttempt;
use LucidStep\App\Actions\Walk\WriteNote;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Role;
use LucidStep\App\Models\User;

/**
 * Walks an entry as its story says, through the actions of the walk.
 *
 * A story is what happened, acts joined by ">>": `pass` or `pass: note`, `open 3` (three steps passed, then left), `na: why`,
 * `blocked 2: reason | what it waits for`, `retest: why`, and `fail 4: what happened | defect | picture`, where the defect is
 * a key, or `new: title`.
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
        private readonly RecordVerdict $record,
        private readonly FinishAttempt $finish,
        private readonly WriteNote $writeNote,
        private readonly AddEvidence $addEvidence,
        private readonly AskRetest $askRetest,
        private readonly FileDefect $file,
        private readonly LinkDefect $link,
        private readonly DraftDefect $draft,
    ) {
    }

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
        foreach (array_map(trim(...), explode('>>', $story)) as $act) {
            preg_match('/^(\w+)\s*(\d*)\s*:?\s*(.*)$/su', $act, $m);
            $parts = array_map(trim(...), explode('|', $m[3]));
            $this->tick($tester, 240);
            if ('retest' === $m[1]) {
                ($this->askRetest)($entry, $this->people['maren'], $parts[0]);

                continue;
            }
            $attempt = ($this->startAttempt)($entry, $tester, Role::Tester, $this->stamp());
            match ($m[1]) {
                'pass' => $this->pass($attempt, $tester, $parts[0]),
                'open' => $this->steps($attempt, $tester, (int) $m[2]),
                'fail' => $this->fail($attempt, $tester, (int) $m[2], $parts),
                'blocked' => $this->block($attempt, $tester, (int) $m[2], $parts),
                'na' => $this->end($attempt, $tester, ['verdict' => 'not_applicable', 'note' => $parts[0]]),
                default => throw new \InvalidArgumentException("No such act in a story: {$act}"),
            };
        }
    }

    private function pass(Attempt $attempt, User $tester, string $note): void
    {
        $last = count($attempt->snapshot['steps']);
        $this->steps($attempt, $tester, $last);
        if ($note !== '') {
            ($this->writeNote)($attempt, $tester, ['round' => 1, 'step' => $last, 'note' => $note], $this->stamp());
        }
        $this->end($attempt, $tester, []);
    }

    /**
     * @param  list<string>  $parts
     */
    private function fail(Attempt $attempt, User $tester, int $step, array $parts): void
    {
        $step = min($step, \count($attempt->snapshot['steps']));
        $this->steps($attempt, $tester, $step - 1);
        $this->tick($tester, 75);
        ($this->record)($attempt, $tester, ['round' => 1, 'step' => $step, 'verdict' => 'fail', 'happened' => $parts[0], 'active_ms' => 61_000], $this->stamp());
        if (isset($parts[2])) {
            ($this->addEvidence)($attempt, $tester, new UploadedFile(base_path("demo/evidence/{$parts[2]}"), $parts[2], null, null, true), ['id' => (string) Str::uuid7(), 'round' => 1, 'step' => $step, 'source' => 'paste'], $this->stamp());
        }
        $attempt->refresh();
        if (str_starts_with($parts[1] ?? '', 'new:')) {
            $draft = ($this->draft)($attempt, 1, $step);
            ($this->file)($this->project, $tester, ['title' => $draft->title, 'body' => $draft->markdown, 'expected' => $draft->expected, 'actual' => $draft->actual], $attempt, 1, $step);
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
        ($this->record)($attempt, $tester, ['round' => 1, 'step' => $step, 'verdict' => 'blocked', 'reason' => $parts[0], 'waits_on' => $parts[1] ?? ''], $this->stamp());
        $this->end($attempt, $tester, []);
    }

    private function steps(Attempt $attempt, User $tester, int $count): void
    {
        for ($step = 1; $step <= $count; ++$step) {
            $seconds = 18 + ($attempt->number * 31 + $step * 17 + \strlen((string) $attempt->snapshot['title']) * 7) % 55;
            $this->tick($tester, $seconds);
            ($this->record)($attempt, $tester, ['round' => 1, 'step' => $step, 'verdict' => 'pass', 'active_ms' => $seconds * 1000], $this->stamp());
        }
    }

    /**
     * @param  array{verdict?: string, note?: string}  $fields
     */
    private function end(Attempt $attempt, User $tester, array $fields): void
    {
        $this->tick($tester, 15);
        ($this->finish)($attempt, $tester, $fields, $this->stamp());
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
