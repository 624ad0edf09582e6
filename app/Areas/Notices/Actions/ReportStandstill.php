<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Notices\Actions;

use Illuminate\Support\Facades\Cache;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Role;
use LucidStep\App\Support\Background\BackgroundWork;

/**
 * Tells whoever waits for a job that nothing works on it, and once in six hours the admins of the project.
 */
final readonly class ReportStandstill
{
    private const AGAIN = 6 * 3600;

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
            $admins = Membership::query()->where('project_id', $project)->where('role', Role::Admin)->pluck('user_id')->all();
            $this->notify->inProject(
                Project::query()->findOrFail($project),
                array_values($admins),
                'The background worker does not run, and somebody waits for it. See ./lucid status on the server.',
            );
        }

        return $words;
    }
}
