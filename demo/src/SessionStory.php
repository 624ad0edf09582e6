<?php

declare(strict_types=1);

namespace LucidStep\Demo;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Defects\Actions\FileDefect;
use LucidStep\App\Areas\Defects\Data\Filing;
use LucidStep\App\Areas\Sessions\Actions\CommentOnSession;
use LucidStep\App\Areas\Sessions\Actions\DebriefSession;
use LucidStep\App\Areas\Sessions\Actions\RunSession;
use LucidStep\App\Areas\Sessions\Actions\SaveCharter;
use LucidStep\App\Areas\Sessions\Actions\SaveRepro;
use LucidStep\App\Areas\Sessions\Actions\TakeObservations;
use LucidStep\App\Areas\Sessions\Actions\WriteLine;
use LucidStep\App\Areas\Sessions\Data\TimelineLine;
use LucidStep\App\Areas\Sessions\Queries\ReadStretch;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Charter;
use LucidStep\App\Models\Configuration;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\SessionLine;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\Core\Evidence\HandsetAddress;
use LucidStep\Core\Sessions\LineKind;
use LucidStep\Core\Sessions\ObservedAct;
use LucidStep\Core\Sessions\SessionState;

/**
 * What was explored in the demo, through the actions that people use: `charters.csv` has what is to be explored, `session-lines.csv` what
 * was done, `session-acts.csv` what the practice page reported of it. A session begins at a time ("-1 10:30": the days before today and the
 * clock), every other line stands so many minutes after it.
 */
final class SessionStory
{
    /** @var array<string, TestSession> by the key of their charter */
    private array $sessions = [];

    /** @var array<string, list<array<string, string>>> what was reported and is not taken yet, by the key of their charter */
    private array $acts = [];

    /** @var array<string, Carbon> when each began */
    private array $began = [];

    public function __construct(
        private readonly SaveCharter $save,
        private readonly RunSession $run,
        private readonly WriteLine $write,
        private readonly DebriefSession $debrief,
        private readonly TakeObservations $observe,
        private readonly ReadStretch $stretch,
        private readonly SaveRepro $repro,
        private readonly FileDefect $file,
        private readonly CommentOnSession $comment,
    ) {}

    /**
     * @param  array<string, User>  $people by the name of their address
     */
    public function __invoke(Project $project, array $people, Carbon $today): void
    {
        Carbon::setTestNow($today->copy()->subDays(7)->setTime(9, 0));
        foreach (CsvFile::rows(base_path('demo/charters.csv')) as $row) {
            $this->charter($project, $people, $today, $row);
        }
        foreach (CsvFile::rows(base_path('demo/session-acts.csv')) as $row) {
            $this->acts[$row['charter']][] = $row;
        }
        foreach (CsvFile::rows(base_path('demo/session-lines.csv')) as $row) {
            $charter = Charter::query()->where('project_id', $project->id)->where('key', $row['charter'])->with('assignee')->firstOrFail();
            $tester = $charter->assignee ?? throw new \LogicException("Nobody runs {$charter->key}.");
            if ('start' === $row['act']) {
                [$days, $clock] = explode(' ', $row['minutes']);
                Carbon::setTestNow($this->began[$charter->key] = $today->copy()->addDays((int) $days)->setTimeFromTimeString($clock));
                $this->sessions[$charter->key] = $this->run->start($charter, $tester, (string) Str::uuid7(), [], new DeviceStamp());

                continue;
            }
            Carbon::setTestNow($this->began[$charter->key]->copy()->addMinutes((int) $row['minutes']));
            $this->reported($charter->key, (int) $row['minutes'] * 60);
            $this->act($this->sessions[$charter->key], $tester, $people, $row);
        }
        Carbon::setTestNow($today->copy()->subDay()->setTime(12, 0));
        $this->found($project, $this->sessions['SKR-S1'], $people['tobias'], true);
        $this->found($project, $this->sessions['SKR-S2'], $people['anouk'], false, 'Press "Back"');
        $this->comment->say($this->sessions['SKR-S1'], $people['maren'], 'Good find. Is the same true of moved sailings?', null);
    }

    /**
     * Takes what the page reported up to a moment of a session.
     *
     * @param  int  $until seconds after it began
     */
    private function reported(string $charter, int $until): void
    {
        $began = $this->began[$charter];
        $taken = [];
        foreach ($this->acts[$charter] ?? [] as $n => $row) {
            if ((int) $row['second'] > $until) {
                break;
            }
            $taken[] = ObservedAct::of(
                [
                    ...array_filter($row, static fn(string $v): bool => '' !== $v),
                    'id' => (string) Str::uuid7(),
                    'at' => $began->getTimestampMs() + 1000 * (int) $row['second'],
                    'n' => $n,
                ],
                0,
            );
        }
        if ([] !== $taken) {
            $this->acts[$charter] = \array_slice($this->acts[$charter], \count($taken));
            $origin = (string) HandsetAddress::originOf((string) config('lucid.practice_url') ?: 'http://practice.skerrywick.test');
            ($this->observe)($this->sessions[$charter], $origin, $taken);
        }
    }

    /**
     * Of the first issue of a session, what leads there is kept, walked again twice, and filed; with a case of it, or without.
     *
     * @param  string  $last after which the rest is left out by hand
     */
    private function found(Project $project, TestSession $session, User $tester, bool $withCase, string $last = ''): void
    {
        $issue = SessionLine::query()->where('session_id', $session->id)->where('kind', LineKind::Issue)->orderBy('done_at')->firstOrFail();
        $stretch = ($this->stretch)($issue);
        $steps = [];
        foreach ($stretch->lines as $line) {
            if ($line->is_step && null === $line->why) {
                $steps[] = ['line' => $line->id, 'words' => $line->words];
            }
            if ('' !== $last && $last === $line->words) {
                break;
            }
        }
        $this->repro->save($issue, $tester, $steps, 0);
        $this->repro->try($issue, $tester, true);
        $this->repro->try($issue, $tester, $withCase);
        if ($withCase) {
            $this->repro->makeCase($issue, $tester);
        }
        ($this->file)(
            $project,
            $tester,
            new Filing(
                [
                    'title' => $stretch->title,
                    'actual' => $stretch->actual,
                    'body' => $stretch->body,
                    'severity' => $withCase ? 'major' : 'minor',
                ],
                seen: $issue,
                captures: array_map(static fn(TimelineLine $c): string => $c->id, $stretch->captures),
            ),
        );
    }

    /**
     * @param  array<string, User>  $people
     * @param  array<string, string>  $row
     */
    private function charter(Project $project, array $people, Carbon $today, array $row): void
    {
        $id = static fn(string $class, string $name): ?string => '' === $name
            ? null
            : (string) $class::query()->where('project_id', $project->id)->where('name', $name)->valueOrFail('id');
        $this->save->create(
            $project,
            $people[$row['by']],
            [
                ...array_intersect_key($row, array_flip(['title', 'with_what', 'to_find', 'risk', 'priority'])),
                'box_minutes' => (int) $row['box_minutes'],
                'assignee_id' => '' === $row['assignee'] ? null : $people[$row['assignee']]->id,
                'folder_id' =>
                    'folder' === $row['area']
                        ? (string) DB::table('folders')->where('project_id', $project->id)->where('name', $row['value'])->value('id')
                        : null,
                'label' => 'label' === $row['area'] ? $row['value'] : '',
                'build_id' => $id(Build::class, $row['build']),
                'configuration_id' => $id(Configuration::class, $row['configuration']),
                'not_before' =>
                    '' === $row['not_before_days'] ? null : $today->copy()->addDays((int) $row['not_before_days'])->toDateString(),
            ],
            true,
        );
    }

    /**
     * @param  array<string, User>  $people
     * @param  array<string, string>  $row
     */
    private function act(TestSession $session, User $tester, array $people, array $row): void
    {
        [$stamp, $words, $value] = [new DeviceStamp(), $row['words'], $row['value']];
        match ($row['act']) {
            'pause' => $this->run->move($session, $tester, SessionState::Paused, $stamp),
            'resume' => $this->run->move($session, $tester, SessionState::Running, $stamp),
            'stop' => $this->run->move($session, $tester, SessionState::Stopped, $stamp),
            'switch' => $this->run->switch($session, $tester, TestSession::share($value), $stamp),
            'debrief' => $this->debrief->write($session, $tester, $words, $value, $stamp),
            'sign' => $this->debrief->signOff($session, $people[$value], $words),
            'capture' => $this->write->capture(
                $session,
                $tester,
                (string) Str::uuid7(),
                new UploadedFile(base_path("demo/evidence/{$value}"), $value, null, null, true),
                $value,
                $words,
                $stamp,
            ),
            default => $this->write->write(
                $session,
                $tester,
                (string) Str::uuid7(),
                LineKind::from($row['act']),
                $words,
                'pin' === $value,
                $stamp,
            ),
        };
    }
}
