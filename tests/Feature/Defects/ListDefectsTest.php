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

    public function test_property_whose_it_is_who_filed_it_and_when_it_is_to_be_mended_narrow_the_list_together(): void
    {
        mt_srand(9);
        $this->fill(40);
        $lead = $this->world->lead();
        $people = [$lead, $this->world->person('one'), $this->world->person('two')];
        $builds = [$this->world->build->id, null];
        foreach (DB::table('defects')->pluck('id') as $id) {
            DB::table('defects')
                ->where('id', $id)
                ->update([
                    'assignee_id' => [...array_column($people, 'id'), null][mt_rand(0, 3)],
                    'reporter_id' => $people[mt_rand(0, 2)]->id,
                    'priority' => ['now', 'soon', 'later', null][mt_rand(0, 3)],
                    'build_id' => $builds[mt_rand(0, 1)],
                ]);
        }
        $all = $this->all('');
        $who = static fn(?array $person, string $value): bool => match ($value) {
            'me' => ($person['id'] ?? null) === $lead->id,
            'nobody' => null === $person,
            default => ($person['id'] ?? null) === $value,
        };
        foreach (['me', 'nobody', $people[1]->id] as $assignee) {
            foreach (['me', $people[2]->id] as $reporter) {
                foreach (['now', 'later', ''] as $priority) {
                    $expected = array_filter(
                        $all,
                        static fn(array $d): bool => $who($d['assignee'], $assignee) &&
                            $who($d['reporter'], $reporter) &&
                            ('' === $priority || $d['priority'] === $priority),
                    );
                    $found = $this->all("assignee={$assignee}&reporter={$reporter}&priority={$priority}");
                    self::assertSame(array_column($expected, 'key'), array_column($found, 'key'));
                }
            }
        }
        $onBuild = array_filter($all, static fn(array $d): bool => null !== $d['build']);
        self::assertSame(array_column($onBuild, 'key'), array_column($this->all("build={$builds[0]}"), 'key'));
        // What is nobody's id finds nothing, and is no error.
        foreach (['assignee=%27', 'reporter=nobody', 'build=me', 'assignee[]=x', 'priority=%00'] as $query) {
            self::assertLessThan(500, $this->as($lead, 'GET', "/projects/TST/defects?{$query}")->getStatusCode(), $query);
        }
        self::assertSame([], $this->all('assignee=x'));
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
