<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Setup;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * Whatever is set in a project is found by its words, in one place.
 */
final class FindSettingsTest extends FeatureTestCase
{
    private User $lead;

    protected function setUp(): void
    {
        parent::setUp();
        $this->lead = $this->world->lead();
    }

    public function test_a_line_of_every_list_is_found_also_of_one_that_nobody_wrote_yet(): void
    {
        $put = fn(string $method, string $path, array $body): mixed => $this->as(
            $this->lead,
            $method,
            "/projects/TST/{$path}",
            $body,
        )->assertSuccessful();
        $put('PUT', 'lists/phases', ['items' => [['name' => 'Zimt phase']]]);
        $put('PUT', 'lists/fields', ['fields' => [['name' => 'Backzeit', 'kind' => 'choice', 'choices' => ['mit Zimt']]]]);
        $put('POST', 'labels', ['names' => ['Zimtstern']]);
        $put('PUT', 'axes', ['axes' => [['name' => 'Zimtachse', 'values' => [['name' => 'ZIMT']]]], 'forbidden' => []]);
        $put('POST', 'configurations', ['how' => 'all']);
        $put('POST', 'releases', ['name' => 'Zimt 1']);
        $put('POST', 'builds', ['name' => 'zimt-7']);
        $put('PUT', 'environments', [
            'environments' => [['name' => 'Ofen', 'address' => 'https://ofen.example/zimt'], ['name' => 'Keller', 'notes' => 'nur Zimt']],
        ]);
        $found = array_map(static fn(array $l): string => "{$l['place']}: {$l['name']}", $this->found('zimt'));
        self::assertSame(
            [
                'phases: Zimt phase',
                'fields: Backzeit',
                'labels: Zimtstern',
                'axes: Zimtachse',
                'axes: ZIMT',
                'configurations: ZIMT',
                'releases: Zimt 1',
                'releases: zimt-7',
                'environments: Ofen',
                'environments: Keller',
            ],
            $found,
        );
        self::assertSame(['reasons-blocked: Environment down'], $this->names('environment DOWN'));
        self::assertSame(['priorities: Critical'], $this->names('critic'));
        self::assertSame([], $this->names('100 %_\\'));
        self::assertSame([], $this->names(' '));
    }

    public function test_of_thousands_of_labels_the_first_that_fit_are_found_by_a_handful_of_queries(): void
    {
        foreach (array_chunk(range(1, 5000), 1000) as $some) {
            DB::table('labels')->insert(
                array_map(fn(int $n): array => ['project_id' => $this->world->project->id, 'name' => sprintf('Straße %04d', $n)], $some),
            );
        }
        $names = [];
        $queries = $this->queries(function () use (&$names): void {
            $names = $this->names('strasse 42');
        });
        self::assertSame('labels: Straße 0042', $names[0]);
        self::assertCount(8, $names);
        self::assertLessThan(24, $queries);
    }

    public function test_nothing_of_another_project_is_found(): void
    {
        DB::table('labels')->insert(['project_id' => $this->world->project->id, 'name' => 'inner']);
        $reader = $this->world->person('reader', Role::Reader);
        $this->as($reader, 'GET', '/projects/TST/settings?q=inner')->assertOk()->assertJsonCount(1);
        DB::table('memberships')->where('user_id', $reader->id)->delete();
        $this->as($reader, 'GET', '/projects/TST/settings?q=inner')->assertNotFound();
    }

    /**
     * @return list<array{place: string, name: string, of: string}>
     */
    private function found(string $words): array
    {
        /** @var list<array{place: string, name: string, of: string}> $found */
        $found = (array) $this->as($this->lead, 'GET', '/projects/TST/settings?q=' . rawurlencode($words))
            ->assertOk()
            ->json();

        return $found;
    }

    /**
     * @return list<string>
     */
    private function names(string $words): array
    {
        return array_map(static fn(array $l): string => "{$l['place']}: {$l['name']}", $this->found($words));
    }
}
