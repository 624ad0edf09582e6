<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Exchange;

use LucidStep\Core\Exchange\CasesUnreadable;
use LucidStep\Core\Exchange\CsvCases;
use LucidStep\Core\Exchange\ReadError;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class CsvCasesTest extends TestCase
{
    public function test_a_row_with_a_title_begins_a_case_and_the_others_add_steps(): void
    {
        $cases = CsvCases::read("\xEF\xBB\xBF".<<<'CSV'
            title,folder,priority,state,labels,estimate,action,data,expected
            First,"Booking / Fares",High,in review,"a, b",1h 20m,Open it,,It opens
            ,,,,,,"Type ""x""
            twice","1
            2",Two lines
            Second,,,,,,,,
            CSV);
        self::assertCount(2, $cases);
        self::assertSame(['Booking', 'Fares'], $cases[0]->folder);
        self::assertSame(['high', 'in_review', ['a', 'b'], 4800], [$cases[0]->priority, $cases[0]->state, $cases[0]->labels, $cases[0]->estimate]);
        self::assertSame("Type \"x\"\ntwice", $cases[0]->steps[1]->action);
        self::assertSame("1\n2", $cases[0]->steps[1]->data);
        self::assertSame([[], 'medium', 'draft', 'functional', null], [$cases[1]->steps, $cases[1]->priority, $cases[1]->state, $cases[1]->type, $cases[1]->estimate]);
    }

    /**
     * @return iterable<string, array{string, list<array{int, ?string}>}>
     */
    public static function faults(): iterable
    {
        yield 'nothing' => ['', [[1, 'title'], [1, 'action'], [1, 'expected']]];
        yield 'a header only' => ["title,action,expected\n", [[2, null]]];
        yield 'an unknown column' => ["title,action,expected,colour\nA,b,c,d", [[1, 'colour']]];
        yield 'a column twice' => ["title,action,expected,action\nA,b,c,d", [[1, 'action']]];
        yield 'ragged rows' => ["title,action,expected\nA,b\nB,b,c,d\nC,d,e", [[2, null], [3, null]]];
        yield 'a step before any case' => ["title,action,expected\n,b,c", [[2, 'title']]];
        yield 'an expectation without an action' => ["title,action,expected\nA,,c", [[2, 'action']]];
        yield 'a wrong priority and estimate' => ["title,priority,estimate,action,expected\nA,urgent,soon,b,c", [[2, 'priority'], [2, 'estimate']]];
        yield 'a case field on a step row' => ["title,folder,action,expected\nA,F,b,c\n,G,d,e", [[3, 'folder']]];
        yield 'an open quote' => ["title,action,expected\nA,\"b,c\n", [[3, null]]];
        yield 'not UTF-8' => ["title,action,expected\nA,\xFF,c", [[1, null]]];
        yield 'zero bytes' => ["title,action,expected\nA,\0,c", [[1, null]]];
        yield 'a title that is too long' => ["title,action,expected\n".str_repeat('x', 301).',b,c', [[2, 'title']]];
        yield 'a cell that is too long' => ["title,action,expected\nA,".str_repeat('x', 20_001).',c', [[2, 'action']]];
    }

    /**
     * @param  list<array{int, ?string}>  $where
     */
    #[DataProvider('faults')]
    public function test_every_fault_is_named_by_row_and_column_and_nothing_is_taken(string $csv, array $where): void
    {
        try {
            CsvCases::read($csv);
            self::fail('The file was taken.');
        } catch (CasesUnreadable $e) {
            self::assertSame($where, array_map(static fn (ReadError $r): array => [$r->row, $r->column], $e->errors));
        }
    }

    public function test_the_cases_of_the_demo_are_read(): void
    {
        $cases = CsvCases::read((string) file_get_contents(__DIR__.'/../../../demo/cases.csv'));
        self::assertGreaterThanOrEqual(60, count($cases));
        self::assertCount(8, array_unique(array_map(static fn ($c): string => implode('/', $c->folder), $cases)));
        foreach ($cases as $case) {
            self::assertNotSame([], $case->steps, $case->title);
        }
    }
}
