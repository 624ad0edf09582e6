<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Text;

use LucidStep\Core\Casebook\CaseSimilarity;
use LucidStep\Core\Text\Difference;
use LucidStep\Core\Text\Words;
use PHPUnit\Framework\TestCase;

final class TextTest extends TestCase
{
    public function test_words_count_without_case_endings_and_stop_words(): void
    {
        self::assertSame(1.0, Words::of('The tickets are BOOKED')->likeness(Words::of('booking, ticket')));
        self::assertEqualsWithDelta(1 / 3, Words::of('pay fare')->likeness(Words::of('fare shown')), 1e-9);
        self::assertSame(0.0, Words::of('')->likeness(Words::of('')), 'empty never equals empty');
        self::assertSame('bus', Words::stem('bus'));
        self::assertTrue(Words::of('the and of')->isEmpty());
    }

    public function test_likeness_is_symmetric_between_none_and_all(): void
    {
        mt_srand(3);
        $words = ['pay', 'fare', 'quay', 'sail', 'sailing', 'the', 'boats', 'boat', 'tide'];
        for ($i = 0; $i < 500; $i++) {
            $pick = static fn(): string => implode(' ', array_map(static fn(): string => $words[mt_rand(0, 8)], range(0, mt_rand(0, 6))));
            [$a, $b] = [Words::of($pick()), Words::of($pick())];
            $like = $a->likeness($b);
            self::assertSame($like, $b->likeness($a));
            self::assertTrue($like >= 0 && $like <= 1);
        }
    }

    public function test_the_pieces_of_a_difference_give_both_texts_back(): void
    {
        mt_srand(5);
        $words = ['Choose', ' ', 'the', "\n", 'sailing', '.', 'ä', '11:00', '**', ',', "\r\n"];
        for ($i = 0; $i < 800; $i++) {
            $make = static fn(): string => implode('', array_map(static fn(): string => $words[mt_rand(0, 10)], range(0, mt_rand(0, 14))));
            [$a, $b] = [$make(), $make()];
            $pieces = Difference::words($a, $b);
            $without = static fn(string $kind): string => implode(
                '',
                array_column(array_filter($pieces, static fn(array $p): bool => $p['kind'] !== $kind), 'text'),
            );
            self::assertSame($a, $without('added'));
            self::assertSame($b, $without('removed'));
            if ($a === $b) {
                self::assertLessThanOrEqual(1, \count($pieces));
            }
        }
        self::assertSame(
            [
                ['kind' => 'same', 'text' => 'Pay '],
                ['kind' => 'removed', 'text' => '12'],
                ['kind' => 'added', 'text' => '13'],
                ['kind' => 'same', 'text' => ' now'],
            ],
            Difference::words('Pay 12 now', 'Pay 13 now'),
        );
        self::assertLessThanOrEqual(
            3,
            \count(Difference::words(str_repeat('a b ', 2000), str_repeat('c d ', 2000))),
            'very long texts are told as one piece',
        );
    }

    public function test_doubles_are_told_from_neighbours(): void
    {
        $one = new CaseSimilarity('Book one adult', 'Open the page Choose a sailing Pay now');
        self::assertGreaterThanOrEqual(
            CaseSimilarity::LIKELY,
            $one->likeness(new CaseSimilarity('Book an adult', 'Open the page. Choose the sailing. Pay.')),
        );
        self::assertLessThan(
            CaseSimilarity::LIKELY,
            $one->likeness(new CaseSimilarity('Book one adult', 'Take the refund Write to the office')),
        );
        self::assertSame(1.0, (new CaseSimilarity('Same', ''))->likeness(new CaseSimilarity('same', '')));
    }
}
