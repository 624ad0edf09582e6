<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

use Illuminate\Http\UploadedFile;

/**
 * Bodies that operations of the API take, where shapes alone do not make one.
 */
trait FittingBodies
{
    /**
     * A body where the right shapes are not enough, so that a request gets as far as the question of who asks.
     *
     * @return ?array<string, mixed>
     */
    protected function body(string $path): ?array
    {
        $step = ['action' => 'Look', 'data' => '', 'expected' => 'It is there'];
        $axis = ['name' => 'Device', 'values' => [['name' => 'Phone']]];

        return match ($path) {
            '/attempts/{attempt}/evidence' => ['id' => $this->ids['entry'], 'link' => 'https://a.test/', 'source' => 'link'],
            '/cases/{case}', '/projects/{project}/cases' => ['title' => 'A case', 'steps' => [$step], 'revision' => 1, 'table' => null],
            '/cases/{case}/needs' => ['needs' => []],
            '/cycles/{cycle}/entries' => ['picks' => ['cases' => [$this->ids['entry']]]],
            '/cycles/{cycle}/moves' => [
                'to' => 'closed',
                'reason' => 'plain words',
            ],
            '/projects/{project}/labels' => ['names' => ['plain words'], 'from' => 'smoke', 'to' => 'plain words'],
            '/defects/{defect}' => ['severity' => 'minor', 'was' => ['severity' => 'major']],
            '/defects/{defect}/moves' => ['state' => 'accepted', 'note' => 'plain words'],
            '/cycles/{cycle}/entry-acts' => ['act' => 'assign', 'ids' => [$this->ids['entry']], 'changes' => []],
            '/data-tables/{table}', '/projects/{project}/data-tables' => [
                'name' => 'Others',
                'columns' => [['name' => 'who']],
                'rows' => [['cells' => ['isla']]],
                'text' => null,
            ],
            '/evidence/{evidence}/comparisons' => ['reference' => str_repeat('a', 64)],
            '/evidence/{evidence}/markups' => ['markup' => '{"shapes":[],"width":1,"height":1}', 'file' => null],
            '/evidence/{evidence}/redactions', '/projects/{project}/files' => ['file' => self::picture()],
            '/projects/{project}/case-imports' => ['file' => self::sheet()],
            '/projects/{project}/axes' => ['axes' => [$axis], 'forbidden' => []],
            '/projects/{project}/calendar' => ['working_days' => [1, 2], 'holidays' => [], 'time_zone' => 'UTC'],
            '/projects/{project}/case-acts' => ['act' => 'edit', 'filter' => ['q' => 'x'], 'changes' => ['priority' => 'high']],
            // Sharing one is another right than keeping one.
            '/projects/{project}/filters' => ['name' => 'Mine', 'shared' => false, 'filter' => ['state' => 'draft']],
            '/projects/{project}/files/{sha256}/ignored-regions' => ['regions' => []],
            '/projects/{project}/lists/fields', '/projects/{project}/lists/defect-fields' => ['fields' => []],
            '/projects/{project}/tracker' => ['address' => 'https://tracker.example/api', 'enabled' => true],
            // Somebody else is the matter of those who file.
            '/defects/{defect}/watchers' => ['person_id' => null],
            '/defects/{defect}/relations' => ['relation' => 'relates_to', 'other' => 'TST-D1'],
            '/projects/{project}/defect-acts', '/projects/{project}/defect-act-previews' => [
                'filter' => ['q' => 'x'],
                'changes' => ['severity' => 'minor'],
            ],
            '/projects/{project}/defect-filters' => ['name' => 'Mine', 'shared' => false, 'filter' => ['state' => 'open']],
            '/projects/{project}/people/{person}/capacity' => ['minutes_per_day' => 60, 'days_off' => []],
            '/projects/{project}/routines', '/routines/{routine}' => ['name' => 'A run', 'steps' => [$step], 'parameters' => []],
            '/projects/{project}/suites', '/suites/{suite}' => [
                'name' => 'A suite',
                'kind' => 'picked',
                'filter' => [],
                'requirement_id' => null,
            ],
            default => null,
        };
    }

    private static function picture(): UploadedFile
    {
        return UploadedFile::fake()->createWithContent('a.png', self::png(4, 4));
    }

    private static function sheet(): UploadedFile
    {
        return UploadedFile::fake()->createWithContent('c.csv', "title,action\nA,b");
    }
}
