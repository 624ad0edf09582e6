<?php

declare(strict_types=1);

namespace LucidStep\Demo;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Sessions\Actions\DebriefSession;
use LucidStep\App\Areas\Sessions\Actions\RunSession;
use LucidStep\App\Areas\Sessions\Actions\SaveCharter;
use LucidStep\App\Areas\Sessions\Actions\WriteLine;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Charter;
use LucidStep\App\Models\Configuration;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\Core\Sessions\LineKind;
use LucidStep\Core\Sessions\SessionState;

/**
 * What was explored in the demo, through the actions that people use: `charters.csv` has what is to be explored, `session-lines.csv` what
 * was done. A session begins at a time ("-1 10:30": the days before today and the clock), every other line stands so many minutes after it.
 */
final class SessionStory
{
    /** @var array<string, TestSession> by the key of their charter */
    private array $sessions = [];

    /** @var array<string, Carbon> when each began */
    private array $began = [];

    public function __construct(
        private readonly SaveCharter $save,
        private readonly RunSession $run,
        private readonly WriteLine $write,
        private readonly DebriefSession $debrief,
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
            $this->act($this->sessions[$charter->key], $tester, $people, $row);
        }
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
