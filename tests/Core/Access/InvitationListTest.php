<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Access;

use LucidStep\Core\Access\InvitationLine;
use LucidStep\Core\Access\InvitationList;
use LucidStep\Core\Access\Role;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * People to invite, as they are pasted.
 */
final class InvitationListTest extends TestCase
{
    /**
     * @param  array{string, string, string}  $expected address, name and role
     */
    #[DataProvider('ways')]
    public function test_an_address_is_found_however_it_is_written(string $typed, array $expected): void
    {
        $line = InvitationList::read($typed, 'tester')[0];
        self::assertNull($line->problem);
        self::assertSame($expected, [$line->email, $line->name, $line->role]);
    }

    /**
     * @return iterable<string, array{string, array{string, string, string}}>
     */
    public static function ways(): iterable
    {
        yield 'alone' => ['Ana@Bakery.test', ['ana@bakery.test', '', 'tester']];
        yield 'as mail programs write it' => ['Ana Bell <ana@bakery.test>', ['ana@bakery.test', 'Ana Bell', 'tester']];
        yield 'with quotes and a comma' => ['"Bell, Ana" <ana@bakery.test>', ['ana@bakery.test', 'Bell, Ana', 'tester']];
        yield 'as a line of CSV' => ['Ana Bell,ana@bakery.test,lead', ['ana@bakery.test', 'Ana Bell', 'lead']];
        yield 'in another order' => ['Developer; ana@bakery.test; Ana Bell', ['ana@bakery.test', 'Ana Bell', 'developer']];
        yield 'out of a table' => ["Ana Bell\tana@bakery.test\tReader", ['ana@bakery.test', 'Ana Bell', 'reader']];
        yield 'a name in two cells' => ['Ana,Bell,ana@bakery.test', ['ana@bakery.test', 'Ana Bell', 'tester']];
        yield 'letters beyond ASCII' => ['Jörg Größe <jörg@bäckerei.test>', ['jörg@bäckerei.test', 'Jörg Größe', 'tester']];
        yield 'after a mark of its encoding' => ["\u{FEFF}ana@bakery.test", ['ana@bakery.test', '', 'tester']];
    }

    #[DataProvider('refusals')]
    public function test_a_line_that_invites_nobody_says_why(string $typed, string $why): void
    {
        $lines = InvitationList::read($typed, 'tester');
        self::assertStringContainsString($why, (string) $lines[\count($lines) - 1]->problem);
    }

    /**
     * @return iterable<string, array{string, string}>
     */
    public static function refusals(): iterable
    {
        yield 'no address' => ['Ana Bell', 'no mail address in this line'];
        yield 'half an address' => ['ana@', 'no mail address'];
        yield 'no host' => ['ana@bakery', 'no mail address'];
        yield 'two people' => ['ana@bakery.test, ben@bakery.test', 'two addresses'];
        yield 'a role that is none' => ['Ana, ana@bakery.test, boss', '“boss” is no role'];
        yield 'twice' => ["ana@bakery.test\nben@bakery.test\nANA@bakery.test", 'stands in line 1'];
        yield 'too long' => [str_repeat('a', 250) . '@bakery.test', 'is no mail address'];
    }

    public function test_heads_and_empty_lines_are_left_out_and_lines_keep_their_numbers(): void
    {
        $lines = InvitationList::read("Name,Email,Role\r\n\r\nAna,ana@bakery.test,lead\r\n;;\r\nBen <ben@bakery.test>\r\n", 'reader');
        self::assertSame([[3, 'lead'], [5, 'reader']], array_map(static fn(InvitationLine $l): array => [$l->number, $l->role], $lines));
    }

    /**
     * Whatever is pasted: every line that is not empty comes back once, with an address or with a reason.
     */
    public function test_no_line_is_lost(): void
    {
        mt_srand(7);
        $pieces = ['ana@bakery.test', 'Ana', '<', '>', '"', ',', ';', "\t", 'lead', ' ', '@', '.', 'x@y.test', "\u{202E}", '\\', "\0", 'ß'];
        for ($i = 0; $i < 2000; $i++) {
            $made = array_map(
                static fn(): string => implode('', array_map(static fn(): string => $pieces[mt_rand(0, 16)], range(0, mt_rand(0, 7)))),
                range(0, 4),
            );
            $lines = InvitationList::read(implode("\n", $made), 'tester');
            foreach ($lines as $line) {
                self::assertTrue(null !== $line->problem || 1 === substr_count($line->email, '@'), $line->text);
                self::assertSame(null === $line->problem, null === $line->problem && InvitationList::isAddress($line->email));
                self::assertNotNull(Role::tryFrom($line->role));
            }
            $kept = array_filter($made, static fn(string $m): bool => '' !== trim($m, " \n\r\t\v\0,;\""));
            self::assertGreaterThanOrEqual(\count(preg_grep('/@/', $kept) ?: []), \count($lines));
        }
    }

    public function test_five_thousand_lines_are_read_at_once(): void
    {
        $text = implode("\n", array_map(static fn(int $i): string => "Person {$i} <p{$i}@bakery.test>", range(1, 5000)));
        self::assertCount(5000, InvitationList::read($text, 'tester'));
    }
}
