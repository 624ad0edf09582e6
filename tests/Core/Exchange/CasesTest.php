<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Exchange;

use LucidStep\Core\Casebook\CaseState;
use LucidStep\Core\Casebook\CaseText;
use LucidStep\Core\Casebook\CustomField;
use LucidStep\Core\Casebook\Step;
use LucidStep\Core\Exchange\CaseColumns;
use LucidStep\Core\Exchange\CaseOut;
use LucidStep\Core\Exchange\CaseReader;
use LucidStep\Core\Exchange\CaseRow;
use LucidStep\Core\Exchange\CaseSheet;
use LucidStep\Core\Exchange\Cell;
use LucidStep\Core\Exchange\Delimited;
use LucidStep\Core\Exchange\ImportContext;
use LucidStep\Core\Exchange\NumberedLines;
use LucidStep\Core\Exchange\ReadError;
use LucidStep\Core\Exchange\Unreadable;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;

final class CasesTest extends TestCase
{
    public function test_separator_and_character_set_are_found(): void
    {
        $text = "Titel;Schritt\n\"Fähre; Überfahrt\";\"Zwei\nZeilen\"\n";
        $coded = [
            'UTF-8' => "\xEF\xBB\xBF{$text}",
            'UTF-16LE' => "\xFF\xFE" . mb_convert_encoding($text, 'UTF-16LE', 'UTF-8'),
            'UTF-16BE' => "\xFE\xFF" . mb_convert_encoding($text, 'UTF-16BE', 'UTF-8'),
            'Windows-1252' => mb_convert_encoding($text, 'Windows-1252', 'UTF-8'),
        ];
        foreach ($coded as $charset => $bytes) {
            $file = Delimited::fromText($bytes);
            self::assertSame([$charset, ';'], [$file->charset, $file->separator]);
            self::assertSame([1 => ['Titel', 'Schritt'], 2 => ['Fähre; Überfahrt', "Zwei\nZeilen"]], iterator_to_array($file->rows()));
        }
        foreach ([',', ';', "\t", '|'] as $separator) {
            self::assertSame($separator, Delimited::fromText("a{$separator}b{$separator}\"c,;|\"\n1{$separator}2{$separator}3")->separator);
        }
        $long = "\xFF\xFE" . mb_convert_encoding(str_repeat('😀,x' . "\n", 40_000), 'UTF-16LE', 'UTF-8');
        self::assertSame(
            ['😀', 'x'],
            array_values(array_unique(array_merge(...iterator_to_array(Delimited::fromText($long)->rows(), false)))),
        );
    }

    public function test_what_is_no_text_is_refused(): void
    {
        foreach (["PK\x03\x04\0\0", "title,action\nA,\"open"] as $bytes) {
            try {
                Delimited::fromText($bytes);
                self::fail('It was taken.');
            } catch (Unreadable $e) {
                self::assertNotSame('', $e->getMessage());
            }
        }
    }

    public function test_no_cell_runs_as_a_formula_and_every_text_comes_back(): void
    {
        foreach (['=1+1', '@sum', "'=x", "''=x", '-5', '+49', "\tx", "'tis", '', "'"] as $text) {
            $cell = Cell::harmless($text);
            self::assertSame($text, Cell::read($cell));
            self::assertDoesNotMatchRegularExpression("/^[=+\\-@\t\r]/", $cell);
        }
        for ($i = 0; $i < 2000; $i++) {
            $text = implode(
                '',
                array_map(static fn(): string => ["'", '=', '+', '-', '@', "\t", 'x', ' '][mt_rand(0, 7)], range(0, mt_rand(0, 5))),
            );
            self::assertSame($text, Cell::read(Cell::harmless($text)));
        }
    }

    public function test_headers_are_known_however_they_are_written(): void
    {
        self::assertSame(
            ['title', 'preconditions', 'action', 'data', 'expected', null, 'field: Risk'],
            CaseColumns::guess(
                ['Test Case Title', 'Pre-Conditions ', 'STEPS', 'Test data', 'Expected_Result', 'Colour', 'risk'],
                [],
                self::around(),
            ),
        );
        self::assertSame(['title', null], CaseColumns::guess(['Title', 'Name']), 'each target once');
        self::assertSame(CaseColumns::fingerprint(['Test Data']), CaseColumns::fingerprint(['test-data']));
    }

    /**
     * @return iterable<string, array{string, string, string, list<array{string, string, string}>}>
     */
    public static function numbered(): iterable
    {
        yield 'numbers' => [
            "1. Open\n2) Choose\n3: Pay",
            '',
            "1. Opens\n2. Chosen\n3. Paid",
            [['Open', '', 'Opens'], ['Choose', '', 'Chosen'], ['Pay', '', 'Paid']],
        ];
        yield 'lines that belong together' => [
            "1. Open\n   the page\n2. Pay 2. times",
            '',
            '',
            [["Open\n   the page", '', ''], ['Pay 2. times', '', '']],
        ];
        yield 'no numbers' => ["Open\n\nPay", 'x', 'All is paid', [['Open', '', ''], ['Pay', 'x', 'All is paid']]];
        yield 'a gap in the results' => ["1. A\n2. B", "1. \n2. x", "1. a\n2.", [['A', '', 'a'], ['B', 'x', '']]];
        yield 'more results than steps' => ['Open', '', "1. a\n2. b", [['Open', '', "a\nb"]]];
        yield 'a decimal is no number of a line' => ['1.5 litres are filled in', '', '', [['1.5 litres are filled in', '', '']]];
        yield 'nothing' => ['', '', 'x', []];
    }

    /**
     * @param  list<array{string, string, string}>  $steps
     */
    #[DataProvider('numbered')]
    public function test_numbered_lines_in_one_cell_become_steps(string $action, string $data, string $expected, array $steps): void
    {
        self::assertSame(
            $steps,
            array_map(static fn(Step $s): array => [$s->action, $s->data, $s->expected], NumberedLines::steps($action, $data, $expected)),
        );
    }

    public function test_a_row_with_a_title_begins_a_case_and_the_others_add_steps(): void
    {
        $cases = $this->read(
            <<<'CSV'
            Title,Folder,Priority,State,Labels,Estimate,Owner,Data table,Step,Test data,Expected result,Risk,Routine,Values
            First,"Booking / Fares \/ seats",High,in review,"a, b",1h 20m,MAREN@x.test,People,Open it,,It opens,high,,
            ,,,,,,,,"Type ""x""
            twice","1
            2",Two lines,,,
            ,,,,,,,,,,,,Sign in,"who = isla\nfenn
            Lang = en"
            Second,,,,,,,,,,,,,
            CSV
            ,
        );
        self::assertCount(2, $cases);
        self::assertSame([], [...$cases[0]->errors, ...$cases[1]->errors]);
        self::assertEquals(
            [
                'title' => 'First',
                'folder' => ['Booking', 'Fares / seats'],
                'priority' => 'high',
                'state' => 'in_review',
                'labels' => ['a', 'b'],
                'estimate' => 4800,
                'owner' => 'u1',
                'table' => 't1',
                'field: Risk' => 'High',
            ],
            $cases[0]->fields,
        );
        self::assertEquals(
            [
                new Step('Open it', '', 'It opens'),
                new Step("Type \"x\"\ntwice", "1\n2", 'Two lines'),
                new Step('', '', '', [], 'r1', ['lang' => 'en', 'who' => "isla\nfenn"]),
            ],
            $cases[0]->steps,
        );
        self::assertSame(
            [[], null, null, 5],
            [$cases[1]->steps, $cases[1]->fields['priority'], $cases[1]->fields['estimate'], $cases[1]->row],
        );
    }

    public function test_a_title_repeated_on_every_row_is_one_case(): void
    {
        $cases = $this->read("title,priority,step\nA,high,one\nA,high,two\nB,low,one\nA,low,three");
        self::assertSame(
            [['A', 2], ['B', 1], ['A', 1]],
            array_map(static fn(CaseRow $c): array => [$c->title(), \count((array) $c->steps)], $cases),
        );
        self::assertSame([], $cases[0]->errors);
        $keyed = $this->read("key,title,step\nX-C1,A,one\nX-C2,A,two\n,,three");
        self::assertSame(['X-C1', 'X-C2'], array_map(static fn(CaseRow $c): ?string => $c->key, $keyed));
    }

    public function test_one_row_a_case(): void
    {
        $text = "title,steps,expected\nA,\"1. Open\n2. Pay\",\"1. Opens\n2. Paid\"\nB,Look,Seen\n";
        $cases = $this->read($text);
        self::assertSame([2, 1], array_map(static fn(CaseRow $c): int => \count((array) $c->steps), $cases));
        self::assertSame('Paid', ((array) $cases[0]->steps)[1]->expected);
    }

    /**
     * @return iterable<string, array{string, list<array{int, ?string}>}>
     */
    public static function faults(): iterable
    {
        yield 'no title' => ["title,step\n,b", [[2, 'title']]];
        yield 'ragged rows' => ["title,step,expected\nA,b\nB,b,c,d\nC,d,e,,", [[2, null], [3, null]]];
        yield 'a wrong priority, state and estimate' => [
            "title,priority,state,estimate,step\nA,whenever,done,soon,b",
            [[2, 'priority'], [2, 'state'], [2, 'estimate']],
        ];
        yield 'a case field on a step row' => ["title,folder,step\nA,F,b\n,G,d", [[3, 'folder']]];
        yield 'people, tables and routines that are not there' => [
            "title,owner,data table,step,routine\nA,nobody,Peopel,b,\n,,,,Sing in",
            [[2, 'owner'], [2, 'table'], [3, 'routine']],
        ];
        yield 'a title of 3,000 characters' => ["title,step\n" . str_repeat('x', 3000) . ',b', [[2, 'title'], [2, 'title']]];
        yield 'a cell that is too long' => ["title,step\nA," . str_repeat('x', 20_001), [[2, 'action']]];
        yield 'a custom field' => ["title,step,risk\nA,b,sideways", [[2, 'field: Risk']]];
        yield 'labels' => ["title,step,labels\nA,b,\"" . implode(',', range(1, 51)) . '"', [[2, 'labels']]];
        yield 'a deep folder' => ["title,step,folder\nA,b," . implode('/', range(1, 13)), [[2, 'folder']]];
    }

    /**
     * @param  list<array{int, ?string}>  $where
     */
    #[DataProvider('faults')]
    public function test_every_fault_is_named_by_row_and_column(string $csv, array $where): void
    {
        $found = array_merge(
            ...array_map(
                static fn(CaseRow $c): array => array_map(static fn(ReadError $e): array => [$e->row, $e->column], $c->errors),
                $this->read($csv),
            ),
        );
        self::assertSame($where, $found);
    }

    public function test_the_nearest_name_is_offered(): void
    {
        $case = $this->read("title,step,routine\nA,,Sing in")[0];
        self::assertSame('"Sing in" is not there. Did you mean "sign in"?', $case->errors[0]->message);
    }

    /**
     * @param  'step'|'case'  $layout
     */
    #[TestWith([CaseReader::BY_STEP])]
    #[TestWith([CaseReader::BY_CASE])]
    public function test_what_goes_out_comes_back_the_same(string $layout): void
    {
        mt_srand(23);
        $texts = [
            '',
            'x',
            '=1+1',
            "two\nlines",
            "one\n2. two\n\\3) three",
            'a "quoted" word',
            'comma, semi;',
            "'=x",
            '- list',
            'ä{{name}}',
            '1. one',
        ];
        $text = static fn(): string => $texts[mt_rand(0, 10)];
        $sheet = new CaseSheet($layout, ['Risk']);
        $stream = fopen('php://memory', 'w+') ?: self::fail();
        fputcsv($stream, $sheet->header(), ',', '"', '');
        $sent = [];
        for ($i = 1; $i <= 120; $i++) {
            $steps = [];
            for ($n = mt_rand(0, 4); $n > 0; $n--) {
                $step =
                    0 === mt_rand(0, 3)
                        ? new Step('', '', '', [], 'r1', ['lang' => $text(), 'who' => "a\\n{$text()}"])
                        : new Step($text(), $text(), $text());
                $steps = $step->isEmpty() ? $steps : [...$steps, $step];
            }
            $sent[] = $out = new CaseOut(
                "TST-C{$i}",
                new CaseText("Case {$i} {$i}", $text(), $text(), $text(), $steps, 't1'),
                0 === $i % 3 ? [] : ['A / b', 'C'],
                'functional',
                'high',
                CaseState::InReview,
                0 === $i % 2,
                'maren@x.test',
                ['a', 'b, "c"'],
                0 === $i % 4 ? null : 60 * $i,
                ['TST-Q1' => 'Fares, and "more"', 'BAK-Q7' => 'Bread; fresh'],
                'People',
                false,
                ['Risk' => 'High'],
                ['r1' => 'Sign in'],
            );
            foreach ($sheet->rows($out) as $row) {
                fputcsv($stream, $row, ',', '"', '');
            }
        }
        rewind($stream);
        $back = $this->read((string) stream_get_contents($stream), $layout);
        self::assertCount(120, $back);
        foreach ($back as $i => $case) {
            $out = $sent[$i];
            self::assertSame([], $case->errors);
            self::assertEquals(
                array_map(static fn(Step $s): array => $s->toArray(), $out->text->steps),
                array_map(static fn(Step $s): array => $s->toArray(), (array) $case->steps),
                "case {$i}",
            );
            self::assertSame(
                [
                    $out->key,
                    $out->text->title,
                    $out->text->objective,
                    $out->text->preconditions,
                    $out->text->postconditions,
                    $out->folder,
                    $out->state->value,
                    $out->automated,
                    $out->labels,
                    $out->estimate,
                    ['TST-Q1', 'Bread; fresh'],
                    'u1',
                    't1',
                    'High',
                ],
                [
                    $case->key,
                    ...array_map(static fn(string $f): mixed => $case->fields[$f], [
                        'title',
                        'objective',
                        'preconditions',
                        'postconditions',
                        'folder',
                        'state',
                        'automated',
                        'labels',
                        'estimate',
                        'requirements',
                        'owner',
                        'table',
                        'field: Risk',
                    ]),
                ],
            );
        }
    }

    public function test_one_row_a_case_comes_back_too(): void
    {
        $sheet = new CaseSheet(CaseReader::BY_CASE);
        $out = new CaseOut(
            'A-C1',
            new CaseText('T', steps: [new Step('Open', '', 'Opens'), new Step("Two\nlines", 'x', ''), new Step('Pay', '', 'Paid')]),
            [],
            'functional',
            'low',
            CaseState::Draft,
            false,
            '',
            [],
            null,
            [],
            null,
            false,
            [],
            [],
        );
        $stream = fopen('php://memory', 'w+') ?: self::fail();
        fputcsv($stream, $sheet->header(), ',', '"', '');
        fputcsv($stream, $sheet->rows($out)[0], ',', '"', '');
        rewind($stream);
        self::assertEquals($out->text->steps, $this->read((string) stream_get_contents($stream))[0]->steps);
    }

    /**
     * @param  'step'|'case'|null  $layout
     *
     * @return list<CaseRow>
     */
    private function read(string $csv, ?string $layout = null): array
    {
        $rows = iterator_to_array(Delimited::fromText($csv)->rows());
        $header = array_shift($rows) ?? [];
        $rows = array_combine(range(2, \count($rows) + 1), $rows);
        $mapping = CaseColumns::guess($header, [], self::around());

        return iterator_to_array(
            (new CaseReader($mapping, $layout ?? CaseReader::layoutOf($rows, $mapping), self::around()))->cases($rows),
            false,
        );
    }

    private static function around(): ImportContext
    {
        return new ImportContext(
            people: ['maren@x.test' => 'u1', 'maren' => 'u1'],
            routines: ['sign in' => 'r1'],
            tables: ['people' => 't1'],
            fields: ['risk' => new CustomField('f1', 'Risk', 'choice', ['High', 'Low'])],
            requirements: ['tst-q1' => 'q1', 'fares' => 'q1'],
        );
    }
}
