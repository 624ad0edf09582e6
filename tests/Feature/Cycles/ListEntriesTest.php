<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Cycles;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Paging\PageCursor;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * @phpstan-type Line array<string, mixed>
 */
final class ListEntriesTest extends FeatureTestCase
{
    private const SORTS = ['', 'position', '-position', 'title', '-title', 'shows', '-shows', 'who', '-who', 'time', '-time', 'defects'];

    /**
     * However a list is ordered and narrowed: its windows one after the other hold each entry that fits once.
     */
    public function test_property_windows_hold_every_entry_once_in_any_order(): void
    {
        mt_srand(7);
        $lead = $this->world->lead();
        $this->fill();
        foreach (self::SORTS as $sort) {
            $whole = $this->list($lead, "sort={$sort}&size=500");
            self::assertSame($whole, $this->windows($lead, "sort={$sort}", 3), $sort);
            self::assertCount(23, array_unique($whole));
            if (str_starts_with($sort, '-')) {
                self::assertSame(array_reverse($this->list($lead, 'sort=' . substr($sort, 1))), $whole, $sort);
            }
        }
    }

    /**
     * Each filter gives what its words say of the lines; held and not run part what was not run.
     */
    public function test_property_filters_fit_what_the_lines_say(): void
    {
        mt_srand(8);
        $lead = $this->world->lead();
        $this->fill();
        $all = $this->lines($lead, 'size=500');
        $person = $this->world->person()->id;
        $shown = static fn(array $e): string => 'not_run' === $e['display_state'] && 'held' === $e['readiness']
            ? 'held'
            : $e['display_state'];
        $filters = [
            "who={$person}" => static fn(array $e): bool => $person === ($e['assignee']['id'] ?? null),
            'who=nobody' => static fn(array $e): bool => null === $e['assignee'],
            'q=case%2012' => static fn(array $e): bool => str_contains(strtolower($e['case_key'] . $e['title']), '12'),
            'joined=yes' => static fn(array $e): bool => [] !== $e['needs'] || self::needed($e['id'], $all),
            'outdated=yes' => static fn(array $e): bool => $e['outdated'],
        ];
        foreach (['pass', 'fail', 'held', 'not_run', 'retest'] as $state) {
            $filters["shows={$state}"] = static fn(array $e): bool => $shown($e) === $state;
        }
        $found = 0;
        foreach ($filters as $query => $fits) {
            $expected = array_column(array_filter($all, $fits), 'id');
            self::assertSame($expected, $this->list($lead, $query), $query);
            self::assertSame($expected, $this->windows($lead, $query, 2), $query);
            $choices = $this->as($lead, 'GET', "/cycles/TST-R1/entry-choices?{$query}")->assertOk();
            self::assertSame($expected, array_column((array) $choices->json(), 'id'), $query);
            $found += \count($expected);
        }
        self::assertGreaterThan(30, $found);
    }

    public function test_a_trail_is_mine_where_i_am_and_what_of_nobodys_may_come(): void
    {
        $me = $this->world->person();
        $mine = $this->world->entry($me);
        $other = $this->world->entry($this->world->person('other'));
        $free = $this->world->entry();
        $ids = fn(string $query = ''): array => array_column(
            (array) $this->as($me, 'GET', "/cycles/TST-R1/trail{$query}")
                ->assertOk()
                ->json(),
            'id',
        );
        self::assertSame([$mine->id, $free->id], $ids());
        self::assertSame([$mine->id, $other->id, $free->id], $ids("?entry={$other->id}"));
        $this->world->policies(['opening_takes' => false]);
        self::assertSame([$mine->id], $ids('?entry=nonsense'));
    }

    public function test_nonsense_in_the_address_is_a_list_and_no_fault(): void
    {
        $lead = $this->world->lead();
        $this->world->entry();
        foreach (['after=%00', 'after=W10', 'after=WzEsMl0', 'who=x', 'on=x', 'ids=x,y', 'sort=--', 'size=-4', 'size=9999'] as $query) {
            $this->as($lead, 'GET', "/cycles/TST-R1/entries?{$query}")->assertOk();
        }
        foreach (self::SORTS as $sort) {
            // A cursor of another kind than the order asks for is none; a number that no entry has is a place all the same.
            foreach ([['x'], [1], [99999999999], ['x', 1], [1, 'x'], [1, 1], [true, 1], [1, 'x', 1], [null, null, null]] as $values) {
                $this->as($lead, 'GET', "/cycles/TST-R1/entries?sort={$sort}&after=" . PageCursor::encode($values))->assertOk();
            }
        }
        foreach (['entries', 'entry-choices', 'trail'] as $of) {
            $this->as($this->world->person('stranger', Role::Reader), 'GET', "/cycles/TST-R1/{$of}")->assertOk();
            $this->world->cycle->update(['state' => 'draft']);
            $this->as($this->world->person(), 'GET', "/cycles/TST-R1/{$of}")->assertNotFound();
            $this->world->cycle->update(['state' => 'released']);
        }
    }

    public function test_a_long_trail_is_told_as_runs_that_add_up(): void
    {
        $lead = $this->world->lead();
        $this->fill(70);
        $trail = (array) $this->as($lead, 'GET', '/cycles/TST-R1')->json('trail');
        self::assertSame(70, array_sum(array_column($trail, 'count')));
        self::assertLessThan(70, \count($trail));
        foreach ($trail as $mark) {
            self::assertSame(1 === $mark['count'], '' !== $mark['name']);
            self::assertTrue(1 === $mark['count'] || !\in_array($mark['shown'], ['fail', 'blocked', 'retest'], true));
        }
    }

    /**
     * Entries of all sorts: theirs and nobody's, judged and not, joined and with windows.
     */
    private function fill(int $entries = 23): void
    {
        $me = $this->world->person();
        $made = [];
        for ($i = 0; $i < $entries; $i++) {
            $entry = $this->world->entry(
                [null, $me, $this->world->person('other')][mt_rand(0, 2)],
                1,
                0 === mt_rand(0, 6) ? ['not_before' => Carbon::now()->addDay()] : [],
            );
            $shown = ['not_run', 'not_run', 'not_run', 'pass', 'pass', 'fail', 'retest'][mt_rand(0, 6)];
            DB::table('entries')
                ->where('id', $entry->id)
                ->update([
                    'display_state' => $shown,
                    'previous_verdict' => 'retest' === $shown ? 'fail' : null,
                    'active_ms' => mt_rand(0, 3) * 1000,
                    'defects_count' => mt_rand(0, 2),
                ]);
            if ([] !== $made && 0 === mt_rand(0, 3)) {
                $this->world->needs($entry, $made[array_rand($made)], ['after', 'only_if_passed'][mt_rand(0, 1)]);
            }
            if (0 === mt_rand(0, 5)) {
                DB::table('cases')
                    ->where('id', $entry->case_id)
                    ->update(['version_id' => $this->world->case(1)->version_id]);
            }
            $made[] = $entry;
        }
    }

    /**
     * @return list<Line>
     */
    private function lines(User $who, string $query): array
    {
        return array_values(
            (array) $this->as($who, 'GET', "/cycles/TST-R1/entries?{$query}")
                ->assertOk()
                ->json('items'),
        );
    }

    /**
     * @return list<string>
     */
    private function list(User $who, string $query): array
    {
        return array_column($this->lines($who, $query), 'id');
    }

    /**
     * @return list<string>
     */
    private function windows(User $who, string $query, int $size): array
    {
        $ids = [];
        $after = '';
        do {
            $page = $this->as($who, 'GET', "/cycles/TST-R1/entries?{$query}&size={$size}&after={$after}")->assertOk();
            array_push($ids, ...array_column((array) $page->json('items'), 'id'));
            $after = $page->json('next');
        } while (null !== $after);

        return $ids;
    }

    /**
     * @param  list<Line>  $all
     */
    private static function needed(string $id, array $all): bool
    {
        foreach ($all as $e) {
            if (\in_array($id, array_column((array) $e['needs'], 'needs_id'), true)) {
                return true;
            }
        }

        return false;
    }
}
