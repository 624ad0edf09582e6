<?php

declare(strict_types=1);

namespace LucidStep\Demo;

use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Casebook\Actions\BulkEditCases;
use LucidStep\App\Areas\Casebook\Queries\CaseFilter;
use LucidStep\App\Areas\Coverage\Actions\ImportRequirements;
use LucidStep\App\Areas\Coverage\Actions\SaveRequirement;
use LucidStep\App\Areas\Coverage\Exchange\ReadRequirementFile;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Requirement;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Core\Coverage\RequirementWords;

/**
 * What must hold: the harbour office sends its list, some of it is linked, and lately the words of one changed.
 */
final readonly class CoverageStory
{
    /** Cases that show whether a requirement holds, beside those that came with the casebook. */
    private const LINKS = ['BK-1.2.2' => 'SKR-C10', 'BK-1.2.3' => 'SKR-C22'];

    public function __construct(private ImportRequirements $import, private SaveRequirement $save, private BulkEditCases $edit) {}

    /**
     * @param  array<string, User>  $people
     */
    public function __invoke(Project $project, array $people, Carbon $today): void
    {
        $lead = $people['maren'];
        Carbon::setTestNow($today->copy()->subDays(17)->setTime(10, 20));
        $file = ReadRequirementFile::fromFile(base_path('demo/requirements.csv'), []);
        $this->import->apply($project, $lead, $file['records'], 'harbour-office.csv');
        foreach (self::LINKS as $requirement => $case) {
            $this->edit->do(
                $project,
                $lead,
                Role::Lead,
                'edit',
                CaseFilter::from($project, ['ids' => (string) TestCase::query()->where('key', $case)->value('id')]),
                ['requirements_add' => [(string) Requirement::query()->where('external_id', $requirement)->value('id')]],
            );
        }
        foreach (Requirement::query()->where('project_id', $project->id)->orderBy('number')->get() as $requirement) {
            $this->save->confirm($requirement, $lead, null);
        }
        Carbon::setTestNow($today->copy()->subDay()->setTime(16, 5));
        $tides = Requirement::query()->where('external_id', 'TI-1')->firstOrFail();
        $this->save->change(
            $tides,
            $lead,
            new RequirementWords(
                $tides->title,
                'No sailing is offered when the quay has less than **2.00 m**, measured half an hour before.',
                $tides->external_id,
                $tides->details,
            ),
            $tides->revision,
        );
    }
}
