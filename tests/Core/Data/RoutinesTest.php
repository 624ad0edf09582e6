<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Data;

use LucidStep\Core\Casebook\Step;
use LucidStep\Core\Data\Check;
use LucidStep\Core\Data\ExpandedStep;
use LucidStep\Core\Data\Parameter;
use LucidStep\Core\Data\Problem;
use LucidStep\Core\Data\Routine;
use LucidStep\Core\Data\RoutineLoop;
use LucidStep\Core\Data\Routines;
use LucidStep\Core\Data\TooManySteps;
use PHPUnit\Framework\TestCase;

final class RoutinesTest extends TestCase
{
    public function test_a_routine_is_written_out_with_its_values(): void
    {
        $routines = $this->routines();
        $steps = $routines->expand([new Step('First'), $this->use('sign', ['who' => '{{user}}']), new Step('Last {{who}}')]);
        self::assertSame(
            ['First', 'Open the page', 'Type {{user}}', 'Choose {{lang}}', 'Last {{who}}'],
            array_map(static fn(ExpandedStep $s): string => $s->step->action, $steps),
        );
        self::assertSame([1, 2, 2, 2, 3], array_map(static fn(ExpandedStep $s): int => $s->position, $steps));
        self::assertSame(
            [[], ['Sign in', 'Open'], ['Sign in'], ['Sign in'], []],
            array_map(static fn(ExpandedStep $s): array => $s->routines, $steps),
        );
    }

    public function test_without_a_value_the_default_stands(): void
    {
        $steps = $this->routines()->expand([$this->use('sign')]);
        self::assertSame('Type isla', $steps[1]->step->action);
    }

    public function test_a_parameter_hides_a_column_of_its_name_and_its_value_may_ask_for_that_column(): void
    {
        $routines = new Routines([new Routine('r', 'R', [new Parameter('Who')], [new Step('{{who}} {{WHO}} \{{who}}')])]);
        self::assertSame('x{{who}} x{{who}} \{{who}}', $routines->expand([$this->use('r', ['who' => 'x{{who}}'])])[0]->step->action);
        self::assertSame([], $routines->expand([$this->use('gone')]));
    }

    public function test_a_loop_is_named(): void
    {
        $routines = new Routines([
            new Routine('x', 'Before', [], [$this->use('a')]),
            new Routine('a', 'Sign in', [], [$this->use('b')]),
            new Routine('b', 'Open', [], [$this->use('c')]),
            new Routine('c', 'Greet', [], [new Step('Hi'), $this->use('a')]),
        ]);
        foreach ([static fn() => $routines->refuseLoops(), fn() => $routines->expand([$this->use('x')])] as $try) {
            try {
                $try();
                self::fail('A loop was let through.');
            } catch (RoutineLoop $e) {
                self::assertSame(['Sign in', 'Open', 'Greet', 'Sign in'], $e->names);
                self::assertStringContainsString('Sign in → Open → Greet → Sign in', $e->getMessage());
            }
        }
        $this->routines()->refuseLoops();
    }

    public function test_routines_within_routines_do_not_explode(): void
    {
        $all = [new Routine('r0', 'R0', [], [new Step('x'), new Step('y')])];
        for ($i = 1; $i < 12; $i++) {
            $all[] = new Routine("r{$i}", "R{$i}", [], [$this->use('r' . ($i - 1)), $this->use('r' . ($i - 1))]);
        }
        $this->expectException(TooManySteps::class);
        (new Routines($all))->expand([$this->use('r11')]);
    }

    public function test_unknown_names_are_found_where_they_are_written(): void
    {
        $check = new Check($this->routines(), ['user', 'lang'], 'the data table "People"');
        $found = $check->steps([
            new Step('Type {{usr}}', '{{user}}', '{{open'),
            $this->use('sign', ['who' => '{{name}}', 'wo' => 'x']),
            $this->use('gone'),
        ]);
        self::assertSame(
            [
                [1, 'action', 'usr', 'user', 'error'],
                [1, 'expected', null, null, 'warning'],
                [2, 'values.who', 'name', null, 'error'],
                [2, 'values.wo', 'wo', 'who', 'error'],
                [3, 'routine', null, null, 'error'],
            ],
            array_map(static fn(Problem $p): array => [$p->step, $p->field, $p->name, $p->nearest, $p->severity], $found),
        );
        self::assertSame('{{usr}} is not known in the data table "People". Did you mean {{user}}?', $found[0]->message);
    }

    public function test_what_a_routine_takes_from_the_table_must_be_there(): void
    {
        $bound = (new Check($this->routines(), ['Lang'], 'x'))->steps([$this->use('sign')]);
        self::assertSame([], $bound);
        $unbound = (new Check($this->routines(), []))->steps([$this->use('sign')]);
        self::assertCount(1, $unbound);
        self::assertSame('{{lang}} in the routine "Sign in" is not known. This case is bound to no data table.', $unbound[0]->message);
    }

    private function routines(): Routines
    {
        return new Routines([
            new Routine('open', 'Open', [], [new Step('Open the page')]),
            new Routine(
                'sign',
                'Sign in',
                [new Parameter('who', 'isla')],
                [$this->use('open'), new Step('Type {{who}}'), new Step('Choose {{lang}}')],
            ),
        ]);
    }

    /**
     * @param  array<string, string>  $values
     */
    private function use(string $id, array $values = []): Step
    {
        return new Step(routine: $id, values: $values);
    }
}
