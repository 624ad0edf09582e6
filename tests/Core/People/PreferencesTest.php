<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\People;

use LucidStep\Core\People\ColorScheme;
use LucidStep\Core\People\Density;
use LucidStep\Core\People\KeyMap;
use LucidStep\Core\People\NoticeChoice;
use LucidStep\Core\People\Preferences;
use LucidStep\Core\People\UnusableKeys;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class PreferencesTest extends TestCase
{
    public function test_any_exchange_of_keys_is_taken_and_each_key_still_stands_for_one(): void
    {
        mt_srand(5);
        $keys = ['1', '2', 'c', 'C', 'ä', '.', '[', 'x', 'ß', '€'];
        for ($i = 0; $i < 500; $i++) {
            $pressed = $keys;
            shuffle($pressed);
            $map = array_combine($keys, $pressed);
            $kept = KeyMap::of($map)->toArray();
            self::assertSame($map, array_replace(array_combine($keys, $keys), $kept));
            self::assertSame(
                [],
                array_filter($kept, static fn(string $to, int|string $from): bool => (string) $from === $to, \ARRAY_FILTER_USE_BOTH),
            );
            // Bend one so that two keys are the same: now one of them stands for two and another for nothing.
            $map[$keys[0]] = $map[$keys[1]];
            try {
                KeyMap::of($map);
                self::fail('One key stands for two.');
            } catch (UnusableKeys $e) {
                self::assertSame('One key cannot stand for two.', $e->getMessage());
            }
        }
    }

    /**
     * @return iterable<string, array{array<array-key, string>, string}>
     */
    public static function unusable(): iterable
    {
        yield 'one without a key' => [['c' => 'k'], 'Without a key would be: c. Keys are exchanged among each other.'];
        yield 'two letters' => [['c' => 'Enter', 'Enter' => 'c'], '"Enter" is no key that writes one letter, digit or sign.'];
        yield 'a space' => [[' ' => 'c', 'c' => ' '], '" " is no key that writes one letter, digit or sign.'];
        yield 'nothing' => [['' => 'c', 'c' => ''], '"" is no key that writes one letter, digit or sign.'];
        yield 'the help' => [['?' => 'c', 'c' => '?'], '"?" shows the keys and stays where it is.'];
        yield 'broken bytes' => [["\xff" => 'c', 'c' => "\xff"], "\"\xff\" is no key that writes one letter, digit or sign."];
    }

    /**
     * @param  array<array-key, string>  $keys
     */
    #[DataProvider('unusable')]
    public function test_keys_that_cannot_be_used_so_are_refused_with_why(array $keys, string $why): void
    {
        $this->expectExceptionMessage($why);
        KeyMap::of($keys);
    }

    public function test_what_was_chosen_reads_back_the_same(): void
    {
        $chosen = new Preferences('Europe/Berlin', ColorScheme::Dark, Density::Dense, false, KeyMap::of(['1' => 'j', 'j' => '1']), [
            'assigned' => new NoticeChoice(false, true),
        ]);
        $again = Preferences::fromArray((array) json_decode((string) json_encode($chosen->toArray()), true));
        self::assertEquals($chosen, $again);
    }

    public function test_what_another_release_kept_is_as_it_comes_where_it_is_not_understood(): void
    {
        $odd = [
            'time_zone' => 7,
            'scheme' => 'sepia',
            'density' => [],
            'single_keys' => 'no',
            'keys' => ['c' => 'k'],
            'notices' => ['x' => 1],
        ];
        self::assertEquals(new Preferences(), Preferences::fromArray($odd));
        self::assertEquals(new Preferences(), Preferences::fromArray([]));
    }
}
