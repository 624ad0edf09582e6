<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Data;

use LucidStep\Core\Data\Column;
use LucidStep\Core\Data\DataTable;
use LucidStep\Core\Data\Names;
use LucidStep\Core\Exchange\ReadError;
use LucidStep\Core\Exchange\Unreadable;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class DataTableTest extends TestCase
{
    public function test_pasted_rows_become_a_table_whatever_their_separator(): void
    {
        foreach (["name\tage\nIsla\t34\nRory\t\n", "name;age\r\nIsla;34\r\nRory;\r\n", "name,age\nIsla,34\n\nRory,\n,\n"] as $text) {
            $table = DataTable::fromText($text);
            self::assertSame(['name', 'age'], $table->names());
            self::assertSame([['Isla', '34'], ['Rory', '']], $table->rows);
            self::assertSame(['name' => 'Rory', 'age' => ''], $table->values(1));
        }
        self::assertSame([['Isla', '']], DataTable::fromText("name\tage\nIsla\n")->rows, 'a spreadsheet leaves out empty cells at the end');
        self::assertSame([["two\nlines", '2']], DataTable::fromText("name\tage\n\"two\nlines\"\t2")->rows);
    }

    /**
     * @return iterable<string, array{list<Column>, list<list<string>>, list<array{int, ?string}>}>
     */
    public static function faults(): iterable
    {
        yield 'no column' => [[], [], [[1, null]]];
        yield 'names' => [
            [new Column('first name'), new Column(''), new Column('a'), new Column('A')],
            [],
            [[1, 'first name'], [1, ''], [1, 'A']],
        ];
        yield 'ragged' => [[new Column('a'), new Column('b')], [['1', '2'], ['1'], ['1', '2', '3']], [[2, null], [3, null]]];
        yield 'long' => [[new Column('a')], [['x'], [str_repeat('x', 4001)]], [[2, 'a']]];
        yield 'too many' => [[new Column('a')], array_fill(0, 5001, ['x']), [[5001, null]]];
        yield 'too wide' => [array_map(static fn(int $i): Column => new Column("c{$i}"), range(1, 61)), [], [[1, null]]];
    }

    /**
     * @param  list<Column>  $columns
     * @param  list<list<string>>  $rows
     * @param  list<array{int, ?string}>  $where
     */
    #[DataProvider('faults')]
    public function test_every_fault_is_named(array $columns, array $rows, array $where): void
    {
        try {
            DataTable::of($columns, $rows);
            self::fail('It was taken.');
        } catch (Unreadable $e) {
            self::assertSame($where, array_map(static fn(ReadError $x): array => [$x->row, $x->column], $e->errors));
        }
    }

    public function test_secret_columns_are_told(): void
    {
        self::assertSame(['pin'], DataTable::of([new Column('who'), new Column('PIN', true)], [])->secrets());
    }

    public function test_the_nearest_name_is_found_only_when_it_is_near(): void
    {
        self::assertSame('passenger', Names::nearest('pasenger', ['price', 'passenger']));
        self::assertSame('Price', Names::nearest('PRICE', ['Price']));
        self::assertNull(Names::nearest('colour', ['price', 'user']));
        self::assertNull(Names::nearest('x', []));
    }
}
