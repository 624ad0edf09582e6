<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Cycles;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Casebook\Queries\CheckCase;
use LucidStep\App\Areas\Casebook\Queries\TextChecks;
use LucidStep\App\Models\CaseVersion;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * A text with a place that nothing fills is named where cases are listed, is not planned, and is not released.
 */
final class WalkableTextTest extends FeatureTestCase
{
    public function test_it_is_named_in_the_list_and_left_out_of_what_is_planned(): void
    {
        $lead = $this->world->lead();
        $good = $this->case('Pay', 'Pay {{fare}}', $this->table(['fare']));
        $bad = $this->case('Broken', 'Pay {{nosuch}}');
        $list = $this->as($lead, 'GET', '/projects/TST/cases?sort=key')->assertOk();
        $why = (string) $list->json('items.1.errors.0');
        self::assertStringContainsString('{{nosuch}}', $why);
        self::assertStringStartsWith('Step 1: ', $why);
        self::assertSame([[], [$why]], array_column((array) $list->json('items'), 'errors'));
        self::assertSame(
            ['Broken'],
            array_column((array) $this->as($lead, 'GET', '/projects/TST/cases?errors=yes')->json('items'), 'title'),
        );
        foreach ([['cases' => [$good, $bad]], ['filter' => ['q' => '']], ['filter' => ['state' => 'draft']]] as $picks) {
            $this->as($lead, 'POST', '/projects/TST/selection-counts', ['picks' => $picks])
                ->assertOk()
                ->assertJsonPath('entries', 1)
                ->assertJsonPath('refused', [['key' => 'TST-C2', 'title' => 'Broken', 'why' => $why]]);
        }
        $this->as($lead, 'POST', '/projects/TST/cycles', $this->cycle([$good, $bad]))
            ->assertCreated()
            ->assertJsonPath('cycle.total', 1);
        $this->as($lead, 'POST', '/cycles/TST-R2/entries', ['picks' => ['cases' => [$bad]]])->assertUnprocessable();
        $this->as($lead, 'POST', '/projects/TST/cycles', $this->cycle([$bad]))->assertUnprocessable();
        self::assertSame(1, Entry::query()->count());
    }

    public function test_a_cycle_whose_text_was_broken_since_is_not_released_until_it_is_mended(): void
    {
        $lead = $this->world->lead();
        $routine = (string) $this->as($lead, 'POST', '/projects/TST/routines', ['name' => 'Sign in', 'steps' => [['action' => 'Sign in']]])
            ->assertCreated()
            ->json('routine.id');
        $case = $this->made(['title' => 'Pay', 'steps' => [['routine' => $routine], ['action' => 'Pay']]]);
        $this->as($lead, 'POST', '/projects/TST/cycles', $this->cycle([$case]))->assertCreated();
        $this->routine($routine, 1, 'Sign in as {{user}}');
        $this->as($lead, 'POST', '/cycles/TST-R2/moves', ['to' => 'released'])
            ->assertConflict()
            ->assertJsonPath('cases', ['TST-C1']);
        $this->as($lead, 'POST', '/cycles/TST-R2/clone-previews', ['name' => 'Again', 'starts_on' => '2026-12-08'])
            ->assertOk()
            ->assertJsonPath('moves.0.entries', 0)
            ->assertJsonPath('notes', ['1 entry is left out: their text cannot be walked.']);
        $this->routine($routine, 2, 'Sign in as anybody');
        $this->as($lead, 'POST', '/cycles/TST-R2/moves', ['to' => 'released'])->assertOk();
    }

    public function test_an_entry_does_not_take_a_version_that_cannot_be_walked(): void
    {
        $lead = $this->world->lead();
        $case = $this->made(['title' => 'Pay', 'steps' => [['action' => 'Pay']]]);
        $this->as($lead, 'POST', '/projects/TST/cycles', $this->cycle([$case]))->assertCreated();
        $entry = Entry::query()->firstOrFail();
        $this->write($case, ['title' => 'Pay', 'steps' => [['action' => 'Pay {{fare}}']]]);
        $this->as($lead, 'POST', "/entries/{$entry->id}/versions")
            ->assertConflict()
            ->assertJsonPath('type', 'urn:lucid-step:problem:cannot-be-walked');
        $this->write($case, ['title' => 'Pay', 'steps' => [['action' => 'Pay {{fare}}']], 'table' => $this->table(['Fare'])]);
        $this->as($lead, 'POST', "/entries/{$entry->id}/versions")->assertOk();
    }

    /**
     * Whatever is written, in whichever order: what is kept of a text is what looking at it anew finds.
     */
    public function test_property_what_is_kept_is_never_behind(): void
    {
        mt_srand(7);
        $lead = $this->world->lead();
        $routines = $tables = $cases = [];
        foreach (['A', 'B', 'C'] as $name) {
            $routines[] = (string) $this->as($lead, 'POST', '/projects/TST/routines', [
                'name' => $name,
                'steps' => [['action' => $name]],
            ])->json('routine.id');
            $tables[] = $this->table(['fare'], "Table {$name}");
            $cases[] = $this->made(['title' => $name, 'steps' => [['action' => $name]]]);
        }
        $one = static fn(array $of): mixed => $of[mt_rand(0, \count($of) - 1)];
        $step = static fn(): array => $one([
            ['action' => 'Plain'],
            ['action' => 'Pay {{fare}}'],
            ['action' => 'Take {{seat}}'],
            ['routine' => $one($routines)],
        ]);
        $found = 0;
        for ($n = 0; $n < 60; ++$n) {
            match (mt_rand(0, 4)) {
                0, 1 => $this->write($one($cases), [
                    'title' => "T{$n}",
                    'steps' => [$step(), $step()],
                    'table' => $one([null, ...$tables]),
                ]),
                2 => $this->routine($one($routines), null, '', [$step()]),
                3 => $this->columns($one($tables), $one([['fare'], ['seat'], ['fare', 'seat'], ['other']])),
                // Refused while it is in use; a case may still be walked by an older version that asks for it.
                default => $this->bin($one([true, false]) ? "/routines/{$one($routines)}" : "/data-tables/{$one($tables)}"),
            };
            $found += $this->assertFresh($n);
        }
        self::assertGreaterThan(20, $found, 'the way there met errors');
    }

    private function bin(string $path): void
    {
        $gone = $this->as($this->world->lead(), 'DELETE', $path)->isSuccessful();
        if (!$gone || 0 === mt_rand(0, 1)) {
            $this->as($this->world->lead(), 'POST', "{$path}/restorations");
        }
    }

    private function assertFresh(int $n): int
    {
        $fresh = [];
        foreach (CaseVersion::query()->with('steps')->get() as $version) {
            $fresh[$version->id] = app(CheckCase::class)->errors($this->world->project->id, $version->text());
        }
        $kept = app(TextChecks::class)->errors($this->world->project->id, array_keys($fresh));
        self::assertEquals(array_filter($fresh, static fn(array $e): bool => [] !== $e), $kept, "after {$n}");

        return \count($kept);
    }

    /**
     * @param  list<string>  $cases
     *
     * @return array<string, mixed>
     */
    private function cycle(array $cases): array
    {
        return [
            'name' => 'Smoke',
            'starts_on' => '2026-12-01',
            'ends_on' => '2026-12-04',
            'build_id' => $this->world->build->id,
            'picks' => ['cases' => $cases],
        ];
    }

    /**
     * @param  list<string>  $columns
     */
    private function table(array $columns, string $name = 'Fares'): string
    {
        return (string) $this->as($this->world->lead(), 'POST', '/projects/TST/data-tables', $this->tableBody($columns, $name))
            ->assertCreated()
            ->json('table.id');
    }

    /**
     * @param  list<string>  $columns
     *
     * @return array<string, mixed>
     */
    private function tableBody(array $columns, string $name): array
    {
        return [
            'name' => $name,
            'columns' => array_map(static fn(string $c): array => ['name' => $c, 'secret' => false], $columns),
            'rows' => [['id' => null, 'cells' => array_fill(0, \count($columns), 'x')]],
        ];
    }

    /**
     * @param  list<string>  $columns
     */
    private function columns(string $table, array $columns): void
    {
        $row = DB::table('data_tables')->where('id', $table)->first();
        $this->as($this->world->lead(), 'PUT', "/data-tables/{$table}", [
            ...$this->tableBody($columns, (string) $row?->name),
            'revision' => $row?->revision,
        ]);
    }

    /**
     * @param  ?list<array<string, mixed>>  $steps
     */
    private function routine(string $id, ?int $revision, string $action, ?array $steps = null): void
    {
        $row = DB::table('routines')->where('id', $id)->first();
        $this->as($this->world->lead(), 'PUT', "/routines/{$id}", [
            'name' => $row?->name,
            'steps' => $steps ?? [['action' => $action]],
            'revision' => $revision ?? $row?->revision,
        ]);
    }

    private function case(string $title, string $action, ?string $table = null): string
    {
        return $this->made(['title' => $title, 'steps' => [['action' => $action]], 'table' => $table]);
    }

    /**
     * @param  array<string, mixed>  $text
     */
    private function made(array $text, ?User $author = null): string
    {
        return (string) $this->as($author ?? $this->world->lead(), 'POST', '/projects/TST/cases', $text)
            ->assertCreated()
            ->json('case.id');
    }

    /**
     * @param  array<string, mixed>  $text
     */
    private function write(string $id, array $text): void
    {
        $row = DB::table('cases')->where('id', $id)->first();
        $this->as($this->world->lead(), 'PUT', "/cases/{$row?->key}", [...$text, 'revision' => $row?->revision]);
    }
}
