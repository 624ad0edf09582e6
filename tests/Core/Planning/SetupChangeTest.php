<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Planning;

use LucidStep\Core\Planning\SetupChange;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class SetupChangeTest extends TestCase
{
    private const NAMES = ['r1' => '4.1', 'r2' => '4.2', 'a1' => 'Device', 'u1' => 'Isla Fenn'];

    /**
     * @param  ?array<string, mixed>  $old
     * @param  ?array<string, mixed>  $new
     * @param  list<string>  $said
     */
    #[DataProvider('changes')]
    public function test_a_change_is_said_in_plain_words(string $subject, ?array $old, ?array $new, array $said): void
    {
        self::assertSame($said, (new SetupChange($subject, 'u1', $old, $new))->sentences(self::NAMES));
    }

    /**
     * @return iterable<string, array{string, ?array<string, mixed>, ?array<string, mixed>, list<string>}>
     */
    public static function changes(): iterable
    {
        $build = ['name' => '4.2-1', 'release_id' => 'r1'];
        yield 'added' => ['builds', null, $build, ['Added build 4.2-1']];
        yield 'gone' => ['builds', $build, null, ['Took out build 4.2-1']];
        yield 'renamed and changed' => [
            'builds',
            $build,
            ['name' => '4.2-2', 'release_id' => 'r2'],
            ['Build 4.2-1 is called 4.2-2', 'Build 4.2-2: release 4.1 → 4.2'],
        ];
        yield 'nothing, in another order of columns' => ['builds', $build, ['release_id' => 'r1', 'name' => '4.2-1'], []];
        yield 'a value, with its axis' => ['axis_values', null, ['name' => 'Phone', 'axis_id' => 'a1'], ['Added value Phone of Device']];
        yield 'a value of an axis that is gone' => ['axis_values', null, ['name' => 'Phone', 'axis_id' => 'a9'], ['Added value Phone']];
        yield 'a person' => [
            'memberships',
            ['user_id' => 'u1', 'role' => 'tester', 'days_off' => []],
            ['user_id' => 'u1', 'role' => 'lead', 'days_off' => ['2026-12-24', '2026-12-25']],
            ['Person Isla Fenn: role tester → lead; days off none → 2026-12-24, 2026-12-25'],
        ];
        yield 'a long text' => [
            'milestones',
            ['name' => 'Autumn', 'description' => ''],
            ['name' => 'Autumn', 'description' => str_repeat('All of it. ', 9)],
            ['Milestone Autumn: what it is for changed'],
        ];
        yield 'a list' => [
            'list_items',
            ['list' => 'priority', 'value' => 'high', 'name' => 'High', 'weight' => 5, 'position' => 1],
            ['list' => 'priority', 'value' => 'high', 'name' => 'High', 'weight' => 8, 'position' => 1],
            ['Priority High: weight 5 → 8'],
        ];
        yield 'policies, one by one' => [
            'projects',
            ['policies' => ['only_assignee_records' => false, 'after_finishing' => 'next_open'], 'storage_limit_mb' => null],
            ['policies' => ['only_assignee_records' => true, 'after_finishing' => 'stay'], 'storage_limit_mb' => 500],
            ['Policy “Only the assignee records”: on', 'Policy “After finishing”: stay', 'MB of evidence at most none → 500'],
        ];
        yield 'working days' => ['projects', ['working_days' => [1, 2]], ['working_days' => [1, 7]], ['Working days Mon, Tue → Mon, Sun']];
        yield 'the first policies, beside what holds anyway' => [
            'projects',
            ['policies' => []],
            ['policies' => ['opening_takes' => true, 'cycle_closes_itself' => true]],
            ['Policy “A cycle closes itself”: on'],
        ];
        yield 'a project' => ['projects', null, ['name' => 'Ferries'], ['The project was made']];
    }

    public function test_an_act_tells_its_order_once_and_what_is_alike_together(): void
    {
        $row = static fn(string $name, int $at): array => ['list' => 'phase', 'name' => $name, 'position' => $at];
        $phase = static fn(?array $old, ?array $new): SetupChange => new SetupChange('list_items', '', $old, $new);
        $builds = array_map(
            static fn(int $n): SetupChange => new SetupChange('builds', "b{$n}", null, ['name' => 2 === $n ? '1,2' : "1.{$n}"]),
            range(1, 10),
        );
        self::assertSame(
            [
                'Another order of phases',
                'Added 10 builds: 1.1, “1,2”, 1.3, 1.4, 1.5, 1.6, 1.7, 1.8 and 2 more',
                'Took out phase Smoke',
                'Phase Look is called Last look',
            ],
            SetupChange::tell(
                [
                    $phase($row('One', 1), $row('One', 2)),
                    ...$builds,
                    $phase($row('Two', 2), $row('Two', 1)),
                    $phase($row('Smoke', 3), null),
                    $phase($row('Look', 4), $row('Last look', 5)),
                    $phase(null, null),
                ],
                [],
            ),
        );
    }
}
