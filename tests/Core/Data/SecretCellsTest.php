<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Data;

use LucidStep\Core\Data\Column;
use LucidStep\Core\Data\SecretCells;
use PHPUnit\Framework\TestCase;

final class SecretCellsTest extends TestCase
{
    public function test_a_secret_cell_follows_its_column(): void
    {
        $who = new Column('who');
        $card = new Column('card', true);
        $kept = static fn(int $at, Column ...$now): string => SecretCells::of(array_values($now), [$who, $card])->kept($at, [
            'isla',
            'HL-1',
        ]);
        self::assertSame('HL-1', $kept(1, $who, $card));
        self::assertSame('HL-1', $kept(0, $card, $who), 'moved');
        self::assertSame('HL-1', $kept(2, new Column('age'), $who, new Column('CARD', true)), 'with another before it');
        self::assertSame('HL-1', $kept(0, $card), 'the column before it is out: not the value of that one');
        self::assertSame('HL-1', $kept(1, $who, new Column('number', true)), 'called otherwise in its place');
        self::assertSame('', $kept(2, $who, $card, new Column('pin', true)), 'a new one');
        self::assertSame('', $kept(0, $who, $card), 'a public cell is sent as it is');
        self::assertSame('', $kept(7, $who, $card), 'a cell without a column');
    }

    /**
     * Whatever is done to the columns: a secret value stays in the column that it was typed in, or the person is told. It never
     * comes out in a public one, and no public value goes into a secret one.
     */
    public function test_no_value_changes_its_column(): void
    {
        mt_srand(11);
        $told = $kept = 0;
        for ($n = 0; $n < 3000; $n++) {
            $names = \array_slice(['a', 'b', 'c', 'd'], 0, mt_rand(1, 4));
            $before = array_map(static fn(string $c): Column => new Column($c, (bool) mt_rand(0, 1)), $names);
            $clear = array_map(static fn(string $c): string => "value of {$c}", $names);
            shuffle($names);
            $names = \array_slice([...$names, 'e', 'f'], mt_rand(0, 2), mt_rand(1, 4));
            $now = array_map(static fn(string $c): Column => new Column($c, (bool) mt_rand(0, 1)), $names);
            $cells = SecretCells::of($now, $before);
            foreach ($now as $at => $column) {
                try {
                    $value = $cells->kept($at, $clear);
                } catch (\DomainException $e) {
                    self::assertStringContainsString('not shown again', $e->getMessage());
                    $told++;

                    continue;
                }
                if ('' === $value) {
                    continue;
                }
                $kept++;
                self::assertTrue($column->secret, 'nothing comes out in a public column');
                $isThere = \in_array($column->name, array_map(static fn(Column $c): string => $c->name, $before), true);
                self::assertSame($isThere ? "value of {$column->name}" : $clear[$at], $value);
            }
        }
        self::assertGreaterThan(500, $told);
        self::assertGreaterThan(500, $kept);
    }
}
