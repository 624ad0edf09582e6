<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Notices\Actions;

use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Notices\Data\NoticeKind;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Background\BackgroundWork;
use LucidStep\Core\Access\Role;

/**
 * Tells whoever waits for a job that nothing works on it, and once in six hours the admins. Worker and scheduler look after each
 * other, so that one is told even where nobody waits.
 */
final readonly class ReportStandstill
{
    private const AGAIN = 6 * 3600;

    private const WORKER = 'The background worker does not run, and somebody waits for it. See ./lucid status on the server.';

    private const SCHEDULER =
        'The scheduler does not run: what is old is not tidied away, and evidence stays longer than it should. See ./lucid status ' .
        'on the server.';

    public function __construct(private NotifyPeople $notify) {}

    /**
     * @param  string  $project its id
     * @param  bool  $waits whether somebody waits
     *
     * @return string what to say; empty when all goes on
     */
    public function __invoke(string $project, bool $waits): string
    {
        $words = $waits ? BackgroundWork::standstill() : '';
        if ('' !== $words && Cache::add("standstill-{$project}", true, self::AGAIN)) {
            $this->tell(Project::query()->findOrFail($project), self::WORKER);
        }

        return $words;
    }

    /**
     * What the scheduler asks: whether there is work, and nobody who does it.
     */
    public function ofWorker(): void
    {
        if ('' !== BackgroundWork::standstill() && DB::table('jobs')->exists()) {
            $this->all('worker', self::WORKER);
        }
    }

    /**
     * What the worker asks, once it has run long enough for the scheduler to have begun as well.
     */
    public function ofScheduler(): void
    {
        if (BackgroundWork::isDead(BackgroundWork::SCHEDULER)) {
            $this->all('scheduler', self::SCHEDULER);
        }
    }

    private function all(string $part, string $words): void
    {
        if (Cache::add("standstill-of-{$part}", true, self::AGAIN)) {
            Project::query()->get()->each(fn(Project $p) => $this->tell($p, $words));
        }
    }

    private function tell(Project $project, string $words): void
    {
        $admins = Membership::query()->where('project_id', $project->id)->where('role', Role::Admin)->pluck('user_id')->all();
        $this->notify->inProject(NoticeKind::Standstill, $project, array_values($admins), $words);
    }
}
