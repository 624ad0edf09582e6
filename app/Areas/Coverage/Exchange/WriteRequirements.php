<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Exchange;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Project;
use LucidStep\Core\Exchange\CsvWriter;
use LucidStep\Core\Exchange\ReqIfWriter;
use LucidStep\Core\Exchange\RequirementSheet;
use LucidStep\Core\Exchange\SheetWriter;

/**
 * Writes the requirements of a project as a file that can be read again to the same.
 *
 * @phpstan-type Row object{
 *     id: string, key: string, external_id: ?string, title: string, text: string, parent: string, level: int,
 *     details: array<string, string>
 * }
 */
final class WriteRequirements
{
    public const FORMAT = 'lucid-step-requirements';

    public const TYPES = [
        'csv' => 'text/csv; charset=utf-8',
        'xlsx' => 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
        'json' => 'application/json',
        'reqif' => 'application/xml',
    ];

    /**
     * @param  key-of<self::TYPES>  $format
     *
     * @return string the whole file
     */
    public function __invoke(Project $project, string $format): string
    {
        $all = $this->all($project->id);

        return match ($format) {
            'csv' => CsvWriter::text(self::rows($all)),
            'xlsx' => $this->workbook($project, $all),
            'json' => $this->json($project, $all),
            'reqif' => $this->reqIf($project, $all),
        };
    }

    /**
     * @return list<Row> each after the one above it
     */
    private function all(string $project): array
    {
        $found = DB::select(
            'with recursive tree as (select r.*, 0 as level, array[position, number] as place, null::text as parent from requirements r ' .
                'where project_id = ? and parent_id is null and dropped_at is null union all select r.*, level + 1, ' .
                'place || array[r.position, r.number], coalesce(t.external_id, t.key) from requirements r join tree t on ' .
                't.id = r.parent_id where r.dropped_at is null) ' .
                'select id, key, external_id, title, text, coalesce(parent, \'\') as parent, level, details from tree order by place',
            [$project],
        );
        foreach ($found as $one) {
            $one->details = array_map(strval(...), (array) json_decode($one->details, true));
        }

        // @phpstan-ignore return.type (what is selected)
        return $found;
    }

    /**
     * @param  list<Row>  $all
     *
     * @return list<string>
     */
    private static function details(array $all): array
    {
        $names = [];
        foreach ($all as $one) {
            $names += array_fill_keys(array_keys($one->details), true);
        }

        return array_map(strval(...), array_keys($names));
    }

    /**
     * @param  list<Row>  $all
     *
     * @return \Generator<int, list<string>>
     */
    private static function rows(array $all): \Generator
    {
        $details = self::details($all);
        yield [...RequirementSheet::HEADER, ...$details];
        foreach ($all as $one) {
            $of = array_map(static fn(string $name): string => $one->details[$name] ?? '', $details);
            yield [$one->key, (string) $one->external_id, $one->parent, $one->title, $one->text, ...$of];
        }
    }

    /**
     * @param  list<Row>  $all
     */
    private function workbook(Project $project, array $all): string
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'requirements');
        try {
            (new SheetWriter(mb_substr($project->code, 0, 31), ['Title', 'Text']))->write($path, self::rows($all));

            return (string) file_get_contents($path);
        } finally {
            @unlink($path);
        }
    }

    /**
     * @param  list<Row>  $all
     */
    private function json(Project $project, array $all): string
    {
        $requirements = array_map(
            static fn(object $one): array => [
                'key' => $one->key,
                'identifier' => $one->external_id,
                'parent' => $one->parent,
                'title' => $one->title,
                'text' => $one->text,
                'details' => (object) $one->details,
            ],
            $all,
        );

        return json_encode(
            ['format' => self::FORMAT, 'version' => 1, 'project' => $project->code, 'requirements' => $requirements],
            \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES,
        );
    }

    /**
     * @param  list<Row>  $all
     */
    private function reqIf(Project $project, array $all): string
    {
        return (new ReqIfWriter("{$project->name}: requirements", self::details($all), Carbon::now()->toDateTimeImmutable()))->write(
            array_map(
                static fn(object $one): array => [
                    'id' => $one->external_id ?? $one->key,
                    'title' => $one->title,
                    'text' => $one->text,
                    'details' => $one->details,
                    'level' => $one->level,
                ],
                $all,
            ),
        );
    }
}
