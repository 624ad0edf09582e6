<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Casebook;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Casebook\Queries\CaseFilter;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * A filter that is misspelt must never mean more cases than the right one.
 */
final class FilterNamesTest extends FeatureTestCase
{
    public function test_what_is_no_filter_is_refused_wherever_cases_are_chosen_by_one(): void
    {
        $lead = $this->world->person('lead', Role::Lead);
        $cases = [$this->world->case(1), $this->world->case(1)];
        $cycle = $this->world->cycle;
        $before = $this->everything();
        foreach (['staet', 'STATE', '0', 'sort'] as $name) {
            $filter = [$name => 'draft'];
            foreach (self::writes($cycle->key) as [$path, $body, $field]) {
                if ('sort' === $name && '/projects/TST/filters' === $path) {
                    continue;
                }
                foreach ([$filter, ['priority' => 'medium', ...$filter], [...$filter, 'q' => 'case']] as $asked) {
                    $sent = $body;
                    data_set($sent, $field, $asked);
                    $this->as($lead, 'POST', $path, $sent)
                        ->assertUnprocessable()
                        ->assertJson(
                            static fn($json) => $json->where('errors', [$field => ['There is no filter called “' . $name . '”.']])->etc(),
                        );
                }
            }
        }
        self::assertSame($before, $this->everything());
        self::assertCount(2, $cases);
    }

    public function test_all_cases_are_meant_only_where_that_is_said(): void
    {
        $me = $this->world->person();
        $cases = [$this->world->case(1), $this->world->case(1)];
        $act = ['act' => 'edit', 'changes' => ['priority' => 'high']];
        $this->as($me, 'POST', '/projects/TST/case-acts', $act)
            ->assertUnprocessable()
            ->assertJsonPath('errors.filter.0', static fn($m) => '' !== $m);
        self::assertSame(0, DB::table('cases')->where('priority', 'high')->count());
        $this->as($me, 'POST', '/projects/TST/case-acts', [...$act, 'filter' => []])
            ->assertOk()
            ->assertJsonPath('changed', \count($cases));
        self::assertSame(\count($cases), DB::table('cases')->where('priority', 'high')->count());
    }

    public function test_the_description_names_every_filter(): void
    {
        $json = (string) file_get_contents(base_path('docs/openapi.json'));
        /** @var array{components: array{schemas: array<string, array{properties: array<string, array{type: string}>}>}} $api */
        $api = json_decode($json, true, 64, \JSON_THROW_ON_ERROR);
        $described = $api['components']['schemas']['CaseFilterFields']['properties'];
        self::assertSame(array_keys(CaseFilter::PARAMETERS), array_keys($described));
        foreach (array_keys($described) as $name) {
            self::assertTrue(CaseFilter::isKnown($name));
        }
        self::assertTrue(CaseFilter::isKnown(CaseFilter::FIELD . 'abc'));
        self::assertFalse(CaseFilter::isKnown('fields.abc'));
    }

    public function test_every_filter_is_taken_by_a_write_as_by_the_list(): void
    {
        $me = $this->world->person();
        $here = $this->world->case(1);
        $this->world->case(2);
        $values = [
            'q' => 'case',
            'folder' => 'none',
            'deep' => 'yes',
            'state' => $here->state->value,
            'type' => $here->type,
            'priority' => $here->priority,
            'owner' => 'none',
            'label' => 'none such',
            'automated' => 'no',
            'template' => 'no',
            'estimate' => 'no',
            'table' => 'none',
            'routine' => $here->id,
            'requirement' => 'none',
            'suite' => $here->id,
            'walked' => 'never',
            'changed' => '3',
            'author_asked' => 'yes',
            'errors' => 'yes',
            'bin' => 'yes',
            'ids' => $here->id,
        ];
        self::assertSame(array_keys(CaseFilter::PARAMETERS), array_keys($values));
        foreach ($values as $name => $value) {
            $listed = $this->as($me, 'GET', '/projects/TST/cases/counts?' . http_build_query([$name => $value]))
                ->assertOk()
                ->json('total');
            $answer = $this->as($me, 'POST', '/projects/TST/case-previews', [
                'act' => 'edit',
                'filter' => [$name => $value],
                'changes' => ['priority' => 'high'],
            ]);
            if (0 === $listed) {
                $answer->assertUnprocessable()->assertJsonPath('errors.filter.0', 'None of these cases is there any more.');
            } else {
                self::assertSame($listed, $answer->json('cases'), $name);
            }
        }
    }

    /**
     * Every write that chooses cases by a filter.
     *
     * @return list<array{string, array<string, mixed>, string}> path, body, and where the filter stands in it
     */
    private static function writes(string $cycle): array
    {
        $dates = ['starts_on' => '2027-01-04', 'ends_on' => '2027-01-08'];

        return [
            ['/projects/TST/case-acts', ['act' => 'bin'], 'filter'],
            ['/projects/TST/case-acts', ['act' => 'edit', 'changes' => ['priority' => 'high']], 'filter'],
            ['/projects/TST/case-previews', ['act' => 'edit', 'changes' => ['priority' => 'high']], 'filter'],
            ['/projects/TST/case-exports', ['format' => 'csv'], 'filter'],
            ['/projects/TST/suites', ['name' => 'All of it', 'kind' => 'rule'], 'filter'],
            ['/projects/TST/filters', ['name' => 'All of it'], 'filter'],
            ['/projects/TST/selection-counts', [], 'picks.filter'],
            ['/projects/TST/cycles', ['name' => 'All of it', ...$dates], 'picks.filter'],
            ["/cycles/{$cycle}/entries", [], 'picks.filter'],
        ];
    }

    /**
     * How many of everything there is that such a write could make or change.
     *
     * @return array<string, int>
     */
    private function everything(): array
    {
        $many = [];
        foreach (['bulk_acts', 'case_exports', 'suites', 'saved_filters', 'cycles', 'entries', 'case_log'] as $table) {
            $many[$table] = DB::table($table)->count();
        }

        return [...$many, 'medium' => DB::table('cases')->where('priority', 'medium')->whereNull('binned_at')->count()];
    }
}
