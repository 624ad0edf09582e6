<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core;

use LucidStep\Core\Data\Mask;
use LucidStep\Core\Execution\CondensedTrail;
use LucidStep\Core\Execution\CycleView;
use LucidStep\Core\Execution\EntryFacts;
use LucidStep\Core\Execution\TrailRun;
use LucidStep\Core\Forecast\Duration;
use LucidStep\Core\Forecast\NotADuration;
use LucidStep\Core\Planning\Conditions;
use LucidStep\Core\Text\Why;
use LucidStep\Core\Verdict\EntryState;
use LucidStep\Core\Verdict\Policies;
use LucidStep\Core\Verdict\Verdict;
use PHPUnit\Framework\TestCase;

/**
 * The examples that the device runs too: what it knows of the rules by itself must not drift away from them.
 */
final class SharedExamplesTest extends TestCase
{
    public function test_roll_ups(): void
    {
        foreach (self::examples('roll-ups') as [$steps, $expected]) {
            $verdicts = array_map(Verdict::from(...), array_values(array_filter(explode(' ', $steps))));
            self::assertSame($expected, Verdict::rollUp($verdicts)->value, $steps);
        }
    }

    public function test_durations(): void
    {
        $durations = self::examples('durations');
        foreach ($durations['accepted'] as $text => $ms) {
            self::assertSame($ms, Duration::fromText((string) $text)->milliseconds, (string) $text);
        }
        foreach ($durations['refused'] as $text) {
            try {
                Duration::fromText($text);
                self::fail("“{$text}” was read.");
            } catch (NotADuration $e) {
                self::assertNotSame('', $e->getMessage());
            }
        }
        foreach ($durations['rounded'] as [$ms, $text]) {
            self::assertSame($text, Duration::rounded($ms), (string) $ms);
        }
    }

    public function test_masks(): void
    {
        foreach (self::examples('masks') as [$secrets, $text, $expected]) {
            self::assertSame($expected, (new Mask($secrets))->text($text), $text);
        }
    }

    public function test_trails(): void
    {
        foreach (self::examples('trail') as $example) {
            $runs = array_map(
                static fn(TrailRun $r): array => [$r->first, $r->shown, $r->group, $r->count],
                CondensedTrail::of($example['marks'], $example['longest']),
            );
            self::assertSame($example['runs'], $runs, $example['says']);
        }
    }

    public function test_words_of_why(): void
    {
        $words = self::examples('words-of-why');
        self::assertSame([], array_filter($words['given'], static fn(?string $w): bool => !Why::isGiven($w)));
        self::assertSame([], array_filter($words['missing'], static fn(?string $w): bool => Why::isGiven($w)));
    }

    public function test_policies(): void
    {
        foreach (self::examples('policies') as $example) {
            foreach ($example['sets'] as $verdict => $sets) {
                self::assertSame($sets, Policies::fromArray($example['policies'])->sets(Verdict::from($verdict)), $verdict);
            }
        }
    }

    public function test_the_next_entry(): void
    {
        $now = new \DateTimeImmutable();
        foreach (self::examples('next-entry') as $example) {
            $entries = array_values(
                array_map(
                    static fn(array $e): EntryFacts => new EntryFacts(
                        $e[0],
                        $e[0],
                        EntryState::stored('done' === $e[1] ? 'pass' : 'not_run'),
                        $e[2],
                        $e[3],
                        'held' === $e[1] ? $now->modify('+1 hour') : null,
                    ),
                    $example['entries'],
                ),
            );
            $view = new CycleView($entries, Conditions::of([]), $now);
            self::assertSame($example['next'], $view->next('me', $example['current'], $example['may_take'])?->id, $example['says']);
        }
    }

    /**
     * @return array<array-key, mixed>
     */
    private static function examples(string $name): array
    {
        return json_decode((string) file_get_contents(__DIR__ . "/../shared/{$name}.json"), true, 16, JSON_THROW_ON_ERROR);
    }
}
