<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Defects;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Defects\Queries\FindDefects;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\World;

final class ListDefectsTest extends FeatureTestCase
{
    private const STATES = ['new', 'accepted', 'in_work', 'fixed', 'verified', 'closed', 'rejected'];

    private const SEVERITIES = ['critical', 'major', 'minor', 'trivial'];

    /**
     * In every order the pages hold each defect once, backwards they are the other way round, and filters fit.
     */
    public function test_property_pages_hold_every_defect_once_in_any_order(): void
    {
        mt_srand(3);
        $this->fill(FindDefects::PAGE + 30);
        $all = $this->all('');
        self::assertCount(FindDefects::PAGE + 30, array_unique(array_column($all, 'key')));
        foreach (['number', 'title', 'state', 'severity'] as $sort) {
            $up = array_column($this->all("sort={$sort}"), 'key');
            self::assertCount(\count($all), array_unique($up), $sort);
            self::assertSame(array_reverse($up), array_column($this->all("sort=-{$sort}"), 'key'), $sort);
        }
        $severities = array_column($this->all('sort=severity'), 'severity');
        $ranks = array_map(static fn(string $s): int => (int) array_search($s, self::SEVERITIES, true), $severities);
        $sorted = $ranks;
        sort($sorted);
        self::assertSame($sorted, $ranks);
    }

    public function test_property_filters_fit_what_the_lines_say_and_count_them(): void
    {
        mt_srand(4);
        $this->fill(40);
        $all = $this->all('');
        $filters = [
            'state=open' => static fn(array $d): bool => !$d['closed'],
            'state=closed' => static fn(array $d): bool => $d['closed'],
        ];
        foreach (array_diff(self::STATES, ['closed']) as $state) {
            $filters["state={$state}"] = static fn(array $d): bool => $state === $d['state'];
        }
        foreach (self::SEVERITIES as $severity) {
            $filters["severity={$severity}&state=open"] = static fn(array $d): bool => $severity === $d['severity'] && !$d['closed'];
        }
        $filters['q=tide%201'] = static fn(array $d): bool => str_contains(strtolower($d['title']), 'tide') &&
            (str_contains($d['title'], '1') || str_contains($d['key'], '1'));
        foreach ($filters as $query => $fits) {
            $expected = array_column(array_filter($all, $fits), 'key');
            self::assertSame($expected, array_column($this->all($query), 'key'), $query);
            $this->as($this->world->lead(), 'GET', "/projects/TST/defects?{$query}")->assertJsonPath('total', \count($expected));
        }
    }

    public function test_no_more_queries_for_more_defects_and_nothing_of_other_projects(): void
    {
        $reader = $this->world->person('reader', Role::Reader);
        $this->fill(2);
        $few = $this->queries(fn() => $this->as($reader, 'GET', '/projects/TST/defects')->assertOk());
        $this->fill(30);
        self::assertSame($few, $this->queries(fn() => $this->as($reader, 'GET', '/projects/TST/defects')->assertOk()));
        $other = new World('OTH');
        $this->as($reader, 'GET', '/projects/OTH/defects')->assertNotFound();
        $this->as($other->lead(), 'GET', '/projects/OTH/defects')->assertJsonPath('items', [])->assertJsonPath('total', 0);
        foreach (['after=%00', 'after=WzFd', 'sort=%27', 'state=nonsense', 'severity=%25'] as $query) {
            $this->as($reader, 'GET', "/projects/TST/defects?{$query}")->assertOk();
        }
    }

    private function fill(int $defects): void
    {
        $lead = $this->world->lead();
        for ($i = 0; $i < $defects; $i++) {
            $title = ['Tide is wrong', 'Fare is missing', 'tide table'][mt_rand(0, 2)] . " {$i}";
            $key = $this->as($lead, 'POST', '/projects/TST/defects', [
                'title' => $title,
                'severity' => self::SEVERITIES[mt_rand(0, 3)],
            ])
                ->assertCreated()
                ->json('defect.key');
            DB::table('defects')
                ->where('key', $key)
                ->update(['state' => self::STATES[mt_rand(0, 6)]]);
        }
    }

    /**
     * @return list<array<string, mixed>>
     */
    private function all(string $query): array
    {
        $lines = [];
        $after = '';
        do {
            $page = $this->as($this->world->lead(), 'GET', "/projects/TST/defects?{$query}&after={$after}")->assertOk();
            array_push($lines, ...array_values((array) $page->json('items')));
            $after = $page->json('next');
        } while (null !== $after);

        return $lines;
    }
}
