<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Casebook;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Casebook\Queries\ListCases;
use LucidStep\App\Models\TestCase;
use LucidStep\Tests\Support\FeatureTestCase;
use PHPUnit\Framework\Attributes\DataProvider;

final class FindTest extends FeatureTestCase
{
    public function test_words_are_found_in_titles_and_steps_and_marked(): void
    {
        $me = $this->world->person();
        $this->make(['title' => 'Book a vehicle', 'steps' => [['action' => 'Type 5.41 m', 'expected' => 'Ferry fare 48.60']]]);
        $this->make(['title' => 'Ferry fares', 'steps' => [['action' => 'Read them']]]);
        $this->make(['title' => 'Something else']);
        $found = $this->as($me, 'GET', '/projects/TST/cases?q=FERR%20fare')->assertJsonCount(2, 'items');
        self::assertSame(['TST-C2', 'TST-C1'], array_column((array) $found->json('items'), 'key'), 'what stands in the title comes first');
        $found->assertJsonPath('items.0.title_parts.0', ['text' => 'Ferry', 'hit' => true]);
        self::assertContains(['text' => 'fare', 'hit' => true], (array) $found->json('items.1.words'));
        foreach (
            ['5.4' => 1, 'TST-C2' => 1, 'tst-c' => 3, "o'x" => 0, '(((' => 0, '%' => 0, "a:b & !c | 'd" => 0, 'fares ferry' => 1]
            as $q => $n
        ) {
            $this->as($me, 'GET', '/projects/TST/cases?q=' . rawurlencode((string) $q))
                ->assertOk()
                ->assertJsonCount($n, 'items');
        }
    }

    public function test_every_field_filters(): void
    {
        $me = $this->world->person();
        $lead = $this->world->lead();
        $fields = (array) $this->as($lead, 'PUT', '/projects/TST/lists/fields', [
            'fields' => [['name' => 'Risk', 'kind' => 'choice', 'choices' => ['High', 'Low']]],
        ])
            ->assertOk()
            ->json('fields');
        $risk = $fields[0]['id'];
        $folder = $this->as($me, 'POST', '/projects/TST/folders', ['name' => 'Fares'])->json('id');
        $inner = $this->as($me, 'POST', '/projects/TST/folders', ['name' => 'Groups', 'parent_id' => $folder])->json('id');
        $need = $this->as($me, 'POST', '/projects/TST/requirements', ['title' => 'Fares are right'])
            ->assertJsonPath('key', 'TST-Q1')
            ->json('id');
        $this->make([
            'title' => 'One',
            'folder_id' => $folder,
            'labels' => ['a', 'b'],
            'priority' => 'high',
            'estimate' => '5m',
            'custom' => [$risk => 'high'],
            'requirements' => [$need],
        ]);
        $this->make([
            'title' => 'Two',
            'folder_id' => $inner,
            'labels' => ['a'],
            'type' => 'security',
            'automated' => true,
            'is_template' => true,
        ]);
        $this->make(['title' => 'Three', 'owner_id' => null]);
        TestCase::query()
            ->where('title', 'One')
            ->update(['last_walked_at' => Carbon::now()->subDays(10)]);
        foreach (
            [
                "folder={$folder}" => ['One'],
                "folder={$folder}&deep=yes" => ['One', 'Two'],
                'folder=none' => ['Three'],
                'label=a' => ['One', 'Two'],
                'label=a,b' => ['One'],
                'priority=high,low' => ['One'],
                'type=security' => ['Two'],
                'automated=yes' => ['Two'],
                'automated=no' => ['One', 'Three'],
                'template=yes' => ['Two'],
                'estimate=yes' => ['One'],
                'owner=me' => ['One', 'Two'],
                'owner=none' => ['Three'],
                'owner=' . Str::uuid7() => [],
                "field.{$risk}=High" => ['One'],
                "field.{$risk}=none" => ['Two', 'Three'],
                "requirement={$need}" => ['One'],
                'requirement=none' => ['Two', 'Three'],
                'walked=never' => ['Two', 'Three'],
                'walked=5' => ['One'],
                'walked=20' => [],
                'changed=1' => ['One', 'Two', 'Three'],
                'state=draft' => ['One', 'Two', 'Three'],
                'state=retired' => [],
                'bin=yes' => [],
                'table=any' => [],
                'nonsense=1' => ['One', 'Two', 'Three'],
                'folder=broken' => ['Three'],
            ]
            as $query => $titles
        ) {
            $items = (array) $this->as($me, 'GET', "/projects/TST/cases?{$query}")
                ->assertOk()
                ->json('items');
            self::assertSame($titles, array_column($items, 'title'), $query);
        }
        $group = $this->as($me, 'GET', '/projects/TST/cases?group=priority');
        self::assertSame(['One', 'Two', 'Three'], array_column((array) $group->json('items'), 'title'));
        $counts = $this->as($me, 'GET', '/projects/TST/cases/counts?group=priority')
            ->assertOk()
            ->assertJsonPath('total', 3)
            ->assertJsonPath('more_than_total', false);
        self::assertEqualsCanonicalizing([['value' => 'high', 'cases' => 1], ['value' => 'medium', 'cases' => 2]], $counts->json('groups'));
        foreach (['q=e', 'state=draft', 'priority=medium', 'q=walrus', 'bin=yes'] as $query) {
            $listed = \count((array) $this->as($me, 'GET', "/projects/TST/cases?{$query}")->json('items'));
            $this->as($me, 'GET', "/projects/TST/cases/counts?{$query}")
                ->assertJsonPath('total', $listed)
                ->assertJsonPath('groups', []);
        }
    }

    public function test_every_order_pages_through_all_of_them_once(): void
    {
        $n = ListCases::PAGE * 2 + 7;
        $me = $this->world->person();
        for ($i = 0; $i < $n; $i++) {
            $this->world->case(0);
        }
        DB::update(
            'update cases set estimate_seconds = case when number % 3 = 0 then null else number % 5 end, ' .
                'last_walked_at = case when number % 2 = 0 then null else now() - make_interval(days => number % 7) end, ' .
                "owner_id = case when number % 4 = 0 then ?::uuid end, priority_rank = number % 3, title = 'Title ' || " .
                '(number % 10)',
            [$me->id],
        );
        foreach (
            ['', ...array_keys(ListCases::SORTS), ...array_map(static fn(string $s): string => "-{$s}", array_keys(ListCases::SORTS))]
            as $sort
        ) {
            $seen = [];
            $after = '';
            for ($page = 0; $page < 4; $page++) {
                $answer = $this->as($me, 'GET', "/projects/TST/cases?sort={$sort}&after={$after}")->assertOk();
                array_push($seen, ...array_column((array) $answer->json('items'), 'key'));
                $after = (string) $answer->json('next');
                if ('' === $after) {
                    break;
                }
            }
            self::assertCount($n, $seen, $sort);
            self::assertCount($n, array_unique($seen), $sort);
        }
        self::assertSame('Title 0', $this->as($me, 'GET', '/projects/TST/cases?sort=title')->json('items.0.title'));
        self::assertSame('Title 9', $this->as($me, 'GET', '/projects/TST/cases?sort=-title')->json('items.0.title'));
        $this->as($me, 'GET', '/projects/TST/cases?sort=title&after=rubbish')->assertOk();
    }

    /**
     * @return iterable<string, array{string, string}>
     */
    public static function written(): iterable
    {
        yield 'umlaut and sharp s' => ['Größe der Fähre', 'GRÖSSE'];
        yield 'no umlaut typed' => ['Die Prüfung', 'prufung'];
        yield 'half a word' => ['Überfahrt gebucht', 'uberf'];
        yield 'accents' => ['Réservé à l’île', 'RESERVE ile'];
        yield 'typed with accents' => ['Reserve', 'réserve'];
        yield 'Polish' => ['Żegluga przybrzeżna', 'zegluga PRZYBRZEŻNA'];
        yield 'Greek' => ['ΝΑΥΛΟΣ', 'ναυλος'];
        yield 'Cyrillic' => ['Паромная ПЕРЕПРАВА', 'переправа'];
        yield 'a quote and a backslash' => ["Captain's log \\ deck", "CAPTAIN's"];
        yield 'signs alone' => ['50 % off', '%'];
    }

    #[DataProvider('written')]
    public function test_words_are_found_whatever_their_case_and_accents(string $title, string $typed): void
    {
        $me = $this->world->person();
        $this->make(['title' => $title]);
        $this->make(['title' => 'Something else']);
        $found = $this->as($me, 'GET', '/projects/TST/cases?q=' . rawurlencode($typed))->assertOk();
        self::assertSame([$title], array_column((array) $found->json('items'), 'title'));
        $this->as($me, 'GET', '/projects/TST/cases/counts?q=' . rawurlencode($typed))->assertJsonPath('total', 1);
        $go = (array) $this->as($me, 'GET', '/projects/TST/go-to?q=' . rawurlencode(explode(' ', $typed)[0]))->json('items');
        self::assertSame([$title], array_column($go, 'title'));
    }

    public function test_what_was_found_is_marked_as_it_is_written(): void
    {
        $this->make(['title' => 'Größe der Fähre', 'steps' => [['action' => 'Prüfung der Größe']]]);
        $parts = $this->as($this->world->person(), 'GET', '/projects/TST/cases?q=GROSSE')->json('items.0');
        self::assertSame(['Größe'], array_column(array_filter($parts['title_parts'], static fn(array $p): bool => $p['hit']), 'text'));
        self::assertSame(
            ['Größe'],
            array_values(array_column(array_filter($parts['words'], static fn(array $p): bool => $p['hit']), 'text')),
        );
    }

    public function test_a_list_takes_the_same_number_of_queries_however_long_it_is(): void
    {
        $me = $this->world->person();
        $counts = [];
        foreach ([1, 40] as $n) {
            for ($i = 0; $i < $n; $i++) {
                $this->world->case(2);
            }
            // At the first look new texts are checked as well.
            $this->as($me, 'GET', '/projects/TST/cases?q=case')->assertOk();
            $counts[] = $this->queries(fn() => $this->as($me, 'GET', '/projects/TST/cases?q=case'));
        }
        self::assertSame($counts[0], $counts[1]);
        self::assertLessThanOrEqual(9, $counts[1]);
        self::assertLessThanOrEqual(26, $this->queries(fn() => $this->as($me, 'GET', '/projects/TST/casebook')->assertOk()));
    }

    public function test_filters_are_kept_for_oneself_or_shared(): void
    {
        [$me, $other] = [$this->world->person(), $this->world->person('other')];
        $this->as($me, 'POST', '/projects/TST/filters', [
            'name' => 'Mine',
            'filter' => ['state' => 'draft', 'sort' => '-changed'],
        ])
            ->assertCreated()
            ->assertJsonPath('filter', ['state' => 'draft', 'sort' => '-changed']);
        $shared = $this->as($me, 'POST', '/projects/TST/filters', [
            'name' => 'Ours',
            'shared' => true,
            'filter' => ['label' => 'smoke'],
        ])->json('id');
        $this->as($me, 'POST', '/projects/TST/filters', [
            'name' => 'Ours',
            'shared' => true,
            'filter' => ['label' => 'tide'],
        ])->assertJsonPath('id', $shared);
        $this->as($other, 'GET', '/projects/TST/filters')
            ->assertJsonCount(1)
            ->assertJsonPath('0.mine', false)
            ->assertJsonPath('0.filter.label', 'tide');
        $this->as($other, 'DELETE', "/filters/{$shared}")->assertForbidden();
        $this->as($me, 'DELETE', "/filters/{$shared}")->assertNoContent();
    }

    public function test_a_live_suite_says_what_it_gained_and_lost_until_a_lead_accepts(): void
    {
        $me = $this->world->person();
        $lead = $this->world->lead();
        $a = $this->make(['title' => 'A', 'labels' => ['smoke']]);
        $b = $this->make(['title' => 'B', 'labels' => ['smoke']]);
        $suite = $this->as($me, 'POST', '/projects/TST/suites', ['name' => 'Smoke', 'kind' => 'rule', 'filter' => ['label' => 'smoke']])
            ->assertCreated()
            ->assertJsonPath('suite.cases', 2)
            ->json('suite.id');
        $c = $this->make(['title' => 'C', 'labels' => ['smoke']]);
        $this->as($me, 'POST', '/projects/TST/case-acts', [
            'act' => 'edit',
            'filter' => ['ids' => $a],
            'changes' => ['labels_remove' => ['SMOKE']],
        ])->assertOk();
        $this->as($me, 'GET', "/suites/{$suite}")
            ->assertJsonPath('suite.cases', 2)
            ->assertJsonPath('gained.0.title', 'C')
            ->assertJsonPath('lost.0.title', 'A')
            ->assertJsonPath('may_accept', false);
        $this->as($me, 'GET', "/projects/TST/cases?suite={$suite}")->assertJsonCount(2, 'items');
        $this->as($me, 'POST', "/suites/{$suite}/acceptances")->assertForbidden();
        $this->as($lead, 'POST', "/suites/{$suite}/acceptances")
            ->assertOk()
            ->assertJsonPath('suite.gained', 0)
            ->assertJsonPath('suite.lost', 0);
        $this->as($me, 'POST', '/projects/TST/case-acts', ['act' => 'bin', 'filter' => ['ids' => $b]])->assertOk();
        $this->as($me, 'GET', "/suites/{$suite}")
            ->assertJsonPath('suite.cases', 1)
            ->assertJsonPath('suite.lost', 0);
        $this->as($me, 'POST', '/projects/TST/suites', ['name' => 'smoke', 'kind' => 'picked'])->assertUnprocessable();
        $this->as($me, 'POST', '/projects/TST/suites', ['name' => 'All', 'kind' => 'rule', 'filter' => []])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['filter']]);
        $picked = $this->as($me, 'POST', '/projects/TST/suites', ['name' => 'Picked', 'kind' => 'picked', 'add' => [$c, $a]])
            ->assertJsonPath('suite.cases', 2)
            ->json('suite.id');
        $this->as($me, 'PATCH', "/suites/{$picked}", ['name' => 'Picked', 'remove' => [$a]])->assertJsonPath('suite.cases', 1);
        $top = $this->as($me, 'POST', '/projects/TST/requirements', ['title' => 'Top'])->json('id');
        $low = $this->as($me, 'POST', '/projects/TST/requirements', ['title' => 'Below', 'parent_id' => $top])->json('id');
        $this->make(['title' => 'D', 'requirements' => [$low]]);
        $this->as($me, 'POST', '/projects/TST/suites', ['name' => 'By need', 'kind' => 'requirement', 'requirement_id' => $top])
            ->assertCreated()
            ->assertJsonPath('suite.cases', 1);
        $this->as($me, 'POST', '/projects/TST/suites', ['name' => 'By none', 'kind' => 'requirement'])->assertUnprocessable();
        $this->as($me, 'DELETE', "/suites/{$picked}")->assertOk();
        $this->as($me, 'GET', '/projects/TST/suites')->assertJsonCount(2);
        $this->as($me, 'POST', "/suites/{$picked}/restorations")->assertOk();
    }

    public function test_the_last_results_are_told_without_opening_the_case(): void
    {
        $me = $this->world->person();
        $entry = $this->world->entry($me, 1);
        $attempt = $this->as($me, 'POST', "/entries/{$entry->id}/attempts")->json('attempt.id');
        $key = TestCase::query()->firstOrFail()->key;
        $this->as($me, 'GET', "/cases/{$key}/results")->assertJsonPath('0.display_state', 'in_progress');
        $this->as($me, 'POST', "/attempts/{$attempt}/finish", ['verdict' => 'pass', 'note' => 'seen it'])->assertOk();
        $this->as($me, 'GET', "/cases/{$key}/results")
            ->assertJsonCount(1)
            ->assertJsonPath('0.display_state', 'pass')
            ->assertJsonPath('0.tester', 'Tester');
        self::assertNotNull(TestCase::query()->firstOrFail()->last_walked_at);
    }

    /**
     * @param  array<string, mixed>  $case
     */
    private function make(array $case): string
    {
        return (string) $this->as($this->world->person(), 'POST', '/projects/TST/cases', $case)
            ->assertCreated()
            ->json('case.id');
    }
}
