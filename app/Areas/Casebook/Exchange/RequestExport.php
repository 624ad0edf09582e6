<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Exchange;

use Illuminate\Support\Carbon;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Casebook\Jobs\RunExport;
use LucidStep\App\Areas\Casebook\Queries\CaseFilter;
use LucidStep\App\Models\CaseExport;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\Core\Exchange\CaseReader;

/**
 * Asks for cases to be taken out: few at once, many by a job.
 */
final readonly class RequestExport
{
    private const AT_ONCE = 300;

    /** A sheet of a workbook has at most 1,048,576 rows. */
    public const MOST_STEPS_XLSX = 1_000_000;

    /**
     * @param  array{layout?: ?string, expand?: ?bool}  $options
     */
    public function __invoke(Project $project, User $user, string $format, CaseFilter $filter, array $options): CaseExport
    {
        $total = $filter->query()->count();
        if (0 === $total) {
            throw ValidationException::withMessages(['filter' => 'There is no case to take out.']);
        }
        if ('xlsx' === $format && $filter->query()->sum('steps_count') > self::MOST_STEPS_XLSX) {
            throw ValidationException::withMessages([
                'format' => \sprintf(
                    'These cases have more than %s steps, which does not fit into a workbook here. Choose CSV, or fewer cases.',
                    number_format(self::MOST_STEPS_XLSX),
                ),
            ]);
        }
        $id = (string) Str::uuid7();
        $export = CaseExport::query()
            ->create([
                'id' => $id,
                'project_id' => $project->id,
                'author_id' => $user->id,
                'format' => $format,
                'total' => $total,
                'path' => "exports/{$id}.{$format}",
                'created_at' => Carbon::now(),
                'options' => [
                    'filter' => $filter->asked,
                    'me' => $user->id,
                    'layout' => CaseReader::BY_CASE === ($options['layout'] ?? null) ? CaseReader::BY_CASE : CaseReader::BY_STEP,
                    'expand' => (bool) ($options['expand'] ?? false),
                ],
            ])
            ->refresh();
        $total <= self::AT_ONCE ? RunExport::dispatchSync($id) : RunExport::dispatch($id);

        return $export->refresh();
    }
}
