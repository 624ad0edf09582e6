<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Defects;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Setup\Queries\ProjectLists;
use LucidStep\App\Models\User;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;

/**
 * Nobody files what a colleague filed an hour ago.
 *
 * @phpstan-type Likely array{defect: array{key: string, closed: bool}, at_this_step: bool, same_component: bool, likeness: float,
 *     words: list<string>}
 */
final class LikelyTest extends FeatureTestCase
{
    use Walks;

    private User $tester;

    protected function setUp(): void
    {
        parent::setUp();
        $this->tester = $this->world->person('tess');
    }

    public function test_those_of_this_very_step_come_first_then_the_likest_with_why_and_closed_ones_too(): void
    {
        $entry = $this->world->entry($this->tester);
        $first = $this->walked($entry, $this->tester);
        $this->judge($this->tester, $first, 1, 2, 'fail', ['happened' => 'It froze']);
        $this->file('Nothing alike at all', ['attempt_id' => $first, 'round' => 1, 'step' => 2]);
        $this->file('Totals of the age bands are wrong', ['actual' => 'It counted 9.24 twice']);
        $this->file('The total of one band counts twice', ['actual' => 'It counted 9.24 twice']);
        $this->file('Colour of the button');
        DB::table('defects')
            ->where('key', 'TST-D3')
            ->update(['state' => 'closed']);
        $again = $this->world->entry($this->tester, 3, ['case_id' => $entry->case_id, 'case_version_id' => $entry->case_version_id]);
        $attempt = $this->walked($again, $this->tester);
        $found = $this->likely([
            'title' => 'Total wrong for a band',
            'actual' => 'it counts 9.24 twice',
            'attempt' => $attempt,
            'step' => 2,
        ]);
        self::assertSame(['TST-D1', 'TST-D2', 'TST-D3'], array_column(array_column($found, 'defect'), 'key'));
        self::assertSame([true, false, false], array_column($found, 'at_this_step'));
        self::assertSame(['total', 'wrong', 'band', 'count', '9', '24', 'twice'], $found[1]['words']);
        self::assertTrue($found[2]['defect']['closed']);
        // What is linked to this step of this attempt is known already.
        $this->as($this->tester, 'POST', '/defects/TST-D1/links', ['attempt_id' => $attempt, 'round' => 1, 'step' => 2])->assertCreated();
        $found = $this->likely([
            'title' => 'Total wrong for a band',
            'actual' => 'it counts 9.24 twice',
            'attempt' => $attempt,
            'step' => 2,
        ]);
        self::assertSame(['TST-D2', 'TST-D3'], array_column(array_column($found, 'defect'), 'key'));
    }

    public function test_of_the_same_component_counts_a_little(): void
    {
        (new ProjectLists($this->world->project))->write('component', [['value' => 'quay', 'name' => 'Quay', 'weight' => 1]]);
        $this->file('Gate red lamp rope bell mast sail anchor buoy oar', ['component' => 'quay']);
        $asked = ['title' => 'Gate red lamp rope bell mast sail', 'actual' => ''];
        self::assertSame([], $this->likely($asked));
        self::assertSame([], $this->likely([...$asked, 'component' => 'ship']));
        [$found] = $this->likely([...$asked, 'component' => 'quay']);
        self::assertSame([true, 0.365], [$found['same_component'], $found['likeness']]);
    }

    public function test_whatever_is_typed_is_words_and_nothing_alike_is_offered(): void
    {
        $this->file("Größe: l'été & (x | y) \\ ! <-> :* 'quoted'");
        foreach (["Größe: l'été & (x | y) \\ !", "GROSSE l'ete x y quoted", "''' \\\\ ' :*", str_repeat('ü', 3000), '', ':)'] as $typed) {
            $this->likely(['title' => $typed, 'actual' => $typed, 'step' => '-1', 'attempt' => 'none']);
        }
        self::assertSame('TST-D1', $this->likely(['title' => "Größe: l'été & (x | y) quoted"])[0]['defect']['key'] ?? null);
        self::assertSame([], $this->likely(['title' => 'the of and']));
        self::assertSame([], $this->likely(['title' => 'Something else entirely']));
    }

    public function test_many_that_share_a_common_word_cost_a_bounded_number_of_queries(): void
    {
        $this->file('Fare is wrong in the morning');
        DB::statement(
            'insert into defects (id, project_id, number, key, title, state, severity, reporter_id, version, created_at, updated_at) ' .
                "select gen_random_uuid(), project_id, number + n, 'TST-D' || (number + n), 'Fare ' || n || ' is wrong', state, " .
                'severity, ' .
                'reporter_id, 1, now(), now() from defects, generate_series(1, 500) n',
        );
        $found = [];
        $queries = $this->queries(function () use (&$found): void {
            $found = $this->likely(['title' => 'Fare is wrong in the morning']);
        });
        self::assertSame('TST-D1', $found[0]['defect']['key']);
        self::assertLessThan(14, $queries);
    }

    /**
     * @param  array<string, mixed>  $more
     */
    private function file(string $title, array $more = []): void
    {
        $this->as($this->tester, 'POST', '/projects/TST/defects', ['title' => $title, ...$more])->assertCreated();
    }

    /**
     * @param  array<string, int|string>  $query
     *
     * @return list<Likely>
     */
    private function likely(array $query): array
    {
        /** @var list<Likely> $found */
        $found = (array) $this->as($this->tester, 'GET', '/projects/TST/likely-defects?' . http_build_query($query))
            ->assertOk()
            ->json();

        return $found;
    }
}
