<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Search;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Search\Data\GoToItem;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\World;

final class GoToTest extends FeatureTestCase
{
    public function test_whatever_a_project_has_is_found_by_words_with_an_address(): void
    {
        $lead = $this->world->lead();
        $entry = $this->world->entry($lead);
        $this->world->person('Tidewatcher');
        $project = $this->world->project->id;
        DB::table('cases')->update(['title' => 'The tide table']);
        DB::table('cycles')->update(['name' => 'Tides of spring']);
        $this->as($lead, 'POST', '/projects/TST/defects', ['title' => 'Tide is wrong', 'severity' => 'minor'])->assertCreated();
        DB::table('requirements')->insert([
            'id' => Str::uuid7(),
            'project_id' => $project,
            'number' => 1,
            'key' => 'TST-Q1',
            'title' => 'Tides are shown',
        ]);
        $steps = [['action' => 'Look at the tide', 'expected' => 'It is high']];
        $this->as($lead, 'POST', '/projects/TST/routines', ['name' => 'Look up a tide', 'steps' => $steps])->assertCreated();
        $this->as($lead, 'POST', '/projects/TST/data-tables', [
            'name' => 'Tidal heights',
            'columns' => [['name' => 'height', 'secret' => false]],
            'rows' => [['cells' => ['1.80']]],
        ])->assertCreated();
        $this->as($lead, 'POST', '/projects/TST/suites', ['name' => 'Tide suite', 'kind' => 'picked', 'add' => [$entry->case_id]]);
        $this->as($lead, 'POST', '/projects/TST/charters', ['title' => 'Tides at night'])->assertCreated();
        $found = $this->find($lead, 'tid');
        self::assertEqualsCanonicalizing(GoToItem::KINDS, array_values(array_unique(array_column($found, 'kind'))));
        $links = array_column($found, 'link', 'kind');
        self::assertSame(
            ['casebook/TST-C1', "entries/{$entry->id}", 'cycles/TST-R1', 'defects/TST-D1'],
            [$links['case'], $links['entry'], $links['cycle'], $links['defect']],
        );
        self::assertSame('TST-R1', array_column($found, 'of', 'kind')['entry']);
        self::assertSame([], $this->find($lead, ''));
        self::assertSame([], $this->find($lead, '%'));
    }

    public function test_a_whole_key_stands_first_and_mine_before_others(): void
    {
        $me = $this->world->person();
        for ($i = 0; $i < 12; $i++) {
            $this->world->entry(11 === $i ? $me : null);
        }
        self::assertSame('TST-C1', $this->find($me, 'tst-c1')[0]['key']);
        $entries = array_values(array_filter($this->find($me, 'Case'), static fn(array $i): bool => 'entry' === $i['kind']));
        self::assertCount(6, $entries);
        self::assertSame('TST-C12', $entries[0]['key']);
    }

    public function test_nothing_is_found_that_one_may_not_see(): void
    {
        $me = $this->world->person();
        $case = $this->world->entry($me)->case;
        $other = new World('OTH');
        $other->entry($other->person());
        self::assertSame([], array_filter($this->find($me, 'OTH'), static fn(array $i): bool => str_starts_with($i['key'], 'OTH')));
        $this->as($me, 'GET', '/projects/OTH/go-to?q=Case')->assertNotFound();
        $this->world->cycle->update(['state' => 'draft']);
        self::assertSame(['case'], array_column($this->find($me, 'TST-'), 'kind'));
        self::assertContains('cycle', array_column($this->find($this->world->lead(), 'TST-'), 'kind'));
        $this->as($this->world->lead(), 'POST', '/projects/TST/case-acts', ['act' => 'bin', 'filter' => ['ids' => $case->id]])->assertOk();
        self::assertSame([], $this->find($this->world->person('reader', Role::Reader), 'Case'));
    }

    /**
     * @return list<array{kind: string, key: string, title: string, of: string, link: string}>
     */
    private function find(User $who, string $words): array
    {
        return array_values(
            (array) $this->as($who, 'GET', '/projects/TST/go-to?q=' . rawurlencode($words))
                ->assertOk()
                ->json('items'),
        );
    }
}
