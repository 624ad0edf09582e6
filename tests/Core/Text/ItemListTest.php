<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Text;

use LucidStep\Core\Text\ItemList;
use PHPUnit\Framework\TestCase;

final class ItemListTest extends TestCase
{
    public function test_names_stand_between_commas_semicolons_or_line_ends_and_in_quotes_where_they_hold_one(): void
    {
        self::assertSame(
            ['money', 'deck, car', 'the "Tide"', 'open "x'],
            ItemList::read("money, \"deck, car\";\n \"the \"\"Tide\"\"\" , open \"x"),
        );
        self::assertSame([], ItemList::read(" ,; \n"));
        self::assertSame(['"a"b', 'c'], ItemList::read('"a"b, c'));
    }

    public function test_names_given_one_by_one_are_one_line_each_and_each_once(): void
    {
        self::assertSame(['deck, car', '7', 'a; "b"'], ItemList::names([" deck, \n car", 7, 'deck,  car', '', ' ', ['x'], 'a; "b"']));
    }

    public function test_property_names_come_back_as_they_went_out(): void
    {
        mt_srand(5);
        for ($i = 0; $i < 5000; ++$i) {
            $names = [];
            for ($n = mt_rand(0, 4); $n > 0; --$n) {
                $name = '';
                for ($k = mt_rand(1, 6); $k > 0; --$k) {
                    $name .= ['a', '"', ',', ' ', ';', "\n", 'é'][mt_rand(0, 6)];
                }
                $names[] = trim($name);
            }
            $names = array_values(array_filter($names, static fn(string $n): bool => '' !== $n));
            self::assertSame($names, ItemList::read(ItemList::write($names)));
        }
    }
}
