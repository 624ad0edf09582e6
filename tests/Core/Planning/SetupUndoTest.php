<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Planning;

use LucidStep\Core\Access\Permission;
use LucidStep\Core\Planning\SetupChange;
use LucidStep\Core\Planning\SetupUndo;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class SetupUndoTest extends TestCase
{
    public function test_any_act_on_a_list_is_taken_back_and_what_others_did_beside_it_stays(): void
    {
        mt_srand(15);
        for ($turn = 0; $turn < 800; $turn++) {
            $before = [];
            foreach (range(1, mt_rand(1, 6)) as $n) {
                $before["k{$n}"] = ['name' => "name {$n}", 'weight' => mt_rand(1, 3), 'position' => $n];
            }
            $after = $before;
            for ($acts = mt_rand(1, 4); $acts > 0; $acts--) {
                $key = 'k' . mt_rand(1, 8);
                match (mt_rand(0, 2)) {
                    0 => ($after[$key] = ['name' => "new {$acts}", 'weight' => 9, 'position' => 20 + $acts]),
                    1 => ($after = array_diff_key($after, [$key => 0])),
                    default => isset($after[$key]) ? ($after[$key]['name'] = "called {$acts}") : null,
                };
            }
            $undo = new SetupUndo(self::changes('list_items', $before, $after));
            // Somebody adds another one meanwhile: it is nobody else's.
            $other = ['name' => 'other', 'weight' => 1, 'position' => 50];
            self::assertEquals([...$before, 'other' => $other], $undo->rows('list_items', [...$after, 'other' => $other]));
            self::assertSame(array_keys($before), array_keys($undo->rows('list_items', $after)), 'each in its place');
            if ($before != $after) {
                $now = [];
                foreach ($after as $key => $row) {
                    $now["list_items {$key}"] = $row;
                }
                self::assertFalse($undo->isOvertaken($now));
                $one = self::changes('list_items', $before, $after)[0];
                $now["list_items {$one->key}"] = null === $one->new ? ['name' => 'back', 'weight' => 1, 'position' => 1] : null;
                self::assertTrue($undo->isOvertaken($now), 'what it left is otherwise now');
            }
        }
    }

    /**
     * @return iterable<string, array{SetupChange, bool, Permission}> a change, whether it is undone elsewhere, and who may
     */
    public static function acts(): iterable
    {
        $p = static fn(array $old, array $new): SetupChange => new SetupChange('projects', 'p', $old, $new);
        yield 'a policy' => [$p(['policies' => ['a' => true]], ['policies' => ['a' => false]]), false, Permission::Lead];
        yield 'the calendar' => [$p(['holidays' => []], ['holidays' => ['2026-12-24']]), false, Permission::Lead];
        yield 'how long evidence stays' => [$p(['retention_days' => null], ['retention_days' => 9]), false, Permission::Administer];
        yield 'access' => [$p(['access' => ['x' => true]], ['access' => ['x' => false]]), true, Permission::Lead];
        yield 'the name of a project' => [$p(['name' => 'a'], ['name' => 'b']), true, Permission::Lead];
        $m = static fn(?array $old, ?array $new): SetupChange => new SetupChange('memberships', 'm', $old, $new);
        $time = ['role' => 'tester', 'minutes_per_day' => 60];
        yield 'the time of somebody' => [$m($time, ['minutes_per_day' => 90] + $time), false, Permission::Lead];
        yield 'a role' => [$m($time, ['role' => 'lead'] + $time), true, Permission::Lead];
        yield 'somebody who came' => [$m(null, $time), true, Permission::Lead];
        yield 'a label' => [new SetupChange('labels', 'l', null, ['name' => 'l']), true, Permission::Lead];
        yield 'a milestone' => [new SetupChange('milestones', 'l', null, ['name' => 'l']), true, Permission::Lead];
        yield 'a configuration that was made' => [new SetupChange('configurations', 'c', null, ['name' => 'c']), false, Permission::Lead];
        yield 'a configuration that went' => [new SetupChange('configurations', 'c', ['name' => 'c'], null), true, Permission::Lead];
    }

    #[DataProvider('acts')]
    public function test_an_act_is_undone_where_it_was_done_and_by_whoever_may_do_it(
        SetupChange $act,
        bool $elsewhere,
        Permission $needs,
    ): void {
        $undo = new SetupUndo([$act]);
        self::assertSame([$elsewhere, $needs], [$undo->isElsewhere(), $undo->needs()]);
        self::assertSame($elsewhere, (new SetupUndo([new SetupChange('releases', 'r', null, ['name' => 'r']), $act]))->isElsewhere());
    }

    public function test_of_a_row_that_many_share_only_what_the_act_changed_counts(): void
    {
        $old = ['policies' => ['a' => true, 'b' => false], 'time_zone' => 'UTC'];
        $undo = new SetupUndo([new SetupChange('projects', 'p', $old, ['policies' => ['a' => false, 'b' => false], 'time_zone' => 'UTC'])]);
        self::assertSame(['a' => true], $undo->project()['policies']);
        self::assertSame([], $undo->project()['calendar']);
        $now = static fn(bool $a): array => ['projects p' => ['policies' => ['a' => $a, 'b' => true], 'time_zone' => 'Europe/Berlin']];
        self::assertFalse($undo->isOvertaken($now(false)));
        self::assertTrue($undo->isOvertaken($now(true)));
        self::assertTrue((new SetupUndo([]))->isElsewhere(), 'nothing is nothing to take back');
    }

    /**
     * @param  array<string, array<string, mixed>>  $before
     * @param  array<string, array<string, mixed>>  $after
     *
     * @return list<SetupChange>
     */
    private static function changes(string $subject, array $before, array $after): array
    {
        $changes = [];
        foreach ([...$before, ...$after] as $key => $_) {
            if (($before[$key] ?? null) !== ($after[$key] ?? null)) {
                $changes[] = new SetupChange($subject, $key, $before[$key] ?? null, $after[$key] ?? null);
            }
        }

        return $changes;
    }
}
