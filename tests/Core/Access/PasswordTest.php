<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Access;

use LucidStep\Core\Access\CommonPasswords;
use LucidStep\Core\Access\Password;
use PHPUnit\Framework\TestCase;

/**
 * What a password must be.
 */
final class PasswordTest extends TestCase
{
    public function test_it_is_long_and_none_that_everybody_tries(): void
    {
        $common = self::shipped();
        self::assertNull(Password::problem('four lanterns on the quay', $common));
        self::assertNull(Password::problem('ÄÖÜäöüßñçéèê', $common), 'characters count, not bytes');
        self::assertStringContainsString('12 characters', (string) Password::problem('lantern-on-', $common));
        self::assertStringContainsString('72 bytes', (string) Password::problem(str_repeat('x', 73), $common));
        self::assertStringContainsString('72 bytes', (string) Password::problem(str_repeat('ß', 37), $common));
        foreach (['123456789012', 'Qwertyuiop123', 'PASSWORD1234', 'abcdefghijkl', '111111111111'] as $tried) {
            self::assertStringContainsString('commonest', (string) Password::problem($tried, $common), $tried);
        }
    }

    /**
     * Each of a list is found and nothing else, wherever it stands.
     */
    public function test_the_list_finds_what_is_in_it_and_nothing_else(): void
    {
        foreach ([0, 1, 2, 7, 100] as $many) {
            $words = array_map(static fn(int $i): string => "word number {$i}", $many > 0 ? range(1, $many) : []);
            $hashes = array_map(static fn(string $w): string => substr(hash('sha256', $w, true), 0, 6), $words);
            sort($hashes, \SORT_STRING);
            $list = new CommonPasswords(implode('', $hashes));
            foreach ($words as $word) {
                self::assertTrue($list->has(mb_strtoupper($word)), $word);
            }
            foreach (range(1, 200) as $i) {
                self::assertFalse($list->has("another {$i}"));
            }
        }
    }

    public function test_what_is_shipped_is_sorted_and_whole(): void
    {
        $content = (string) file_get_contents(__DIR__ . '/../../../resources/passwords/common.bin');
        $hashes = str_split($content, 6);
        $sorted = array_values(array_unique($hashes));
        sort($sorted, \SORT_STRING);
        self::assertSame($sorted, $hashes);
        self::assertGreaterThan(40_000, \count($hashes));
    }

    private static function shipped(): CommonPasswords
    {
        return new CommonPasswords((string) file_get_contents(__DIR__ . '/../../../resources/passwords/common.bin'));
    }
}
