<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Data;

use LucidStep\Core\Data\Mask;
use PHPUnit\Framework\TestCase;

final class MaskTest extends TestCase
{
    private const ID = '0190f0aa-4711-7000-8000-0000000047ab';

    public function test_digits_of_an_id_are_no_secret_and_an_id_that_is_one_is(): void
    {
        $mask = new Mask(['4711', '47ab']);
        self::assertSame(self::ID . ',' . self::ID, $mask->aroundIds(self::ID . ',' . self::ID));
        self::assertSame('•••• of ' . self::ID . ' and ••••', $mask->aroundIds('4711 of ' . self::ID . ' and 47ab'));
        self::assertSame('the key ••••', (new Mask([self::ID]))->aroundIds('the key ' . self::ID));
        self::assertSame('the key ••••', (new Mask(['key-' . self::ID, '4711']))->aroundIds('the key key-' . self::ID));
        self::assertSame(self::ID, (new Mask([]))->aroundIds(self::ID));
    }

    public function test_bytes_are_looked_through_in_their_own_character_set(): void
    {
        $mask = new Mask(['größe-1', 'GEHEIM']);
        $text = "a;größe-1;b\nGEHEIM;x\n";
        $hidden = "a;••••;b\n••••;x\n";
        self::assertSame($hidden, $mask->bytes($text));
        self::assertSame(
            mb_convert_encoding($hidden, 'Windows-1252', 'UTF-8'),
            $mask->bytes(mb_convert_encoding($text, 'Windows-1252', 'UTF-8')),
        );
        foreach (['UTF-16LE' => "\xFF\xFE", 'UTF-16BE' => "\xFE\xFF"] as $charset => $mark) {
            $in = static fn(string $t): string => $mark . mb_convert_encoding($t, $charset, 'UTF-8');
            self::assertSame($in($hidden), $mask->bytes($in($text)), $charset);
        }
    }

    public function test_what_is_too_short_is_not_looked_for(): void
    {
        self::assertTrue((new Mask(['abc', '']))->isEmpty());
        self::assertFalse((new Mask(['abcd']))->isEmpty());
    }
}
