<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Planning;

use LucidStep\Core\Planning\CapacityLine;
use LucidStep\Core\Planning\CapacityList;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * Lists of people's time, as they are pasted.
 */
final class CapacityListTest extends TestCase
{
    /**
     * @param  list<string>  $days
     */
    #[DataProvider('lines')]
    public function test_a_line_tells_of_time_and_days_off(string $line, string $person, ?int $minutes, array $days): void
    {
        $read = CapacityList::read($line);
        self::assertCount(1, $read);
        self::assertNull($read[0]->problem);
        self::assertSame([$person, $minutes, $days], [$read[0]->person, $read[0]->minutes, $read[0]->daysOff]);
    }

    /**
     * @return iterable<string, array{string, string, ?int, list<string>}>
     */
    public static function lines(): iterable
    {
        yield 'time alone' => ['ana@bakery.test, 6h', 'ana@bakery.test', 360, []];
        yield 'a name with a comma' => ['"Bell, Ana";4h 30m', 'Bell, Ana', 270, []];
        yield 'minutes' => ["Ana Bell\t90", 'Ana Bell', 90, []];
        yield 'none' => ['Ana Bell, 0', 'Ana Bell', 0, []];
        yield 'days one by one' => [
            'Ana Bell; 2026-12-24, 2026-12-27 2026-12-28',
            'Ana Bell',
            null,
            ['2026-12-24', '2026-12-27', '2026-12-28'],
        ];
        yield 'as cells' => ['Ana Bell, 6h, 2026-12-24', 'Ana Bell', 360, ['2026-12-24']];
        yield 'from one to another' => [
            'Ana Bell, 2026-02-27..2026-03-02',
            'Ana Bell',
            null,
            ['2026-02-27', '2026-02-28', '2026-03-01', '2026-03-02'],
        ];
        yield 'in words' => ['Ana Bell, 2026-12-31 to 2027-01-01', 'Ana Bell', null, ['2026-12-31', '2027-01-01']];
        yield 'with a dash' => ['Ana Bell, 2026-12-31 – 2027-01-01', 'Ana Bell', null, ['2026-12-31', '2027-01-01']];
        yield 'first and last of a table' => ["Ana Bell\t2026-12-31\t2027-01-01", 'Ana Bell', null, ['2026-12-31', '2027-01-01']];
        yield 'with time before' => ["Ana Bell\t6h\t2028-02-28\t2028-03-01", 'Ana Bell', 360, ['2028-02-28', '2028-02-29', '2028-03-01']];
        yield 'twice the same' => ['Ana Bell; 2026-12-24 2026-12-24', 'Ana Bell', null, ['2026-12-24']];
    }

    #[DataProvider('refusals')]
    public function test_what_cannot_be_taken_says_why(string $line, string $why): void
    {
        self::assertStringContainsString($why, (string) CapacityList::read($line)[0]->problem);
    }

    /**
     * @return iterable<string, array{string, string}>
     */
    public static function refusals(): iterable
    {
        yield 'nothing' => ['Ana Bell', 'neither how much a day nor when'];
        yield 'a word' => ['Ana Bell, often', '“often” is neither'];
        yield 'no day' => ['Ana Bell, 2026-02-30', 'There is no 2026-02-30.'];
        yield 'backwards' => ['Ana Bell, 2026-12-24..2026-12-20', '2026-12-20 is before 2026-12-24.'];
        yield 'for years' => ['Ana Bell, 2026-01-01..2036-01-01', 'more than 400 days'];
        yield 'two times' => ['Ana Bell, 6h, 7h', 'two times a day'];
        yield 'more than a day' => ['Ana Bell, 25h', '“25h” is neither'];
        yield 'a date of another kind' => ['Ana Bell, 24.12.2026', '“24.12.2026” is neither'];
    }

    public function test_heads_and_empty_lines_tell_of_nobody_and_lines_keep_their_numbers(): void
    {
        $read = CapacityList::read("\u{FEFF}Name;Time a day;From;To\r\n\r\nAna;6h\r\n  \r\nBen;0");
        self::assertSame([3, 5], array_map(static fn(CapacityLine $l): int => $l->number, $read));
        self::assertSame([], CapacityList::read(''));
    }

    /**
     * Whatever is pasted: a line each, in order, and none of it throws.
     */
    public function test_whatever_is_pasted_is_read(): void
    {
        mt_srand(20261130);
        $parts = [
            'Ana',
            'ana@bakery.test',
            '6h',
            '0',
            '2026-12-24',
            '2026-13-40',
            '..',
            ' to ',
            ',',
            ';',
            "\t",
            '"',
            "\n",
            '–',
            "\u{FEFF}",
            '9999-12-31',
            '1h 90m',
            '-',
            'é',
        ];
        for ($n = 0; $n < 3000; $n++) {
            $text = implode('', array_map(static fn(): string => $parts[array_rand($parts)], range(0, mt_rand(0, 12))));
            $before = 0;
            foreach (CapacityList::read($text) as $line) {
                self::assertGreaterThan($before, $line->number);
                $before = $line->number;
                self::assertNotSame('', $line->person);
                self::assertSame($line->daysOff, array_values(array_unique($line->daysOff)));
                self::assertTrue(null !== $line->problem || null !== $line->minutes || [] !== $line->daysOff);
            }
        }
    }
}
