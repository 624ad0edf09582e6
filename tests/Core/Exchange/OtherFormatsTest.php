<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Exchange;

use LucidStep\Core\Casebook\CaseState;
use LucidStep\Core\Casebook\CaseText;
use LucidStep\Core\Casebook\CustomField;
use LucidStep\Core\Casebook\Step;
use LucidStep\Core\Exchange\CaseOut;
use LucidStep\Core\Exchange\ImportContext;
use LucidStep\Core\Exchange\JsonCases;
use LucidStep\Core\Exchange\MarkdownCases;
use LucidStep\Core\Exchange\Unreadable;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class OtherFormatsTest extends TestCase
{
    public function test_a_case_reads_well_as_markdown_and_no_cell_breaks_the_table(): void
    {
        $out = new CaseOut(
            'SKR-C1',
            new CaseText("Two\nlines", 'Goal', '', 'After', [
                new Step('Open | close', "a\nb", '**See**'),
                new Step('', '', '', [], 'r', ['who' => 'isla', 'day' => 'Monday']),
            ]),
            ['Fares', 'Groups'],
            'functional',
            'high',
            CaseState::InReview,
            true,
            'maren@x.test',
            ['a', 'b'],
            90,
            ['SKR-Q1' => 'Fares'],
            'People',
            false,
            ['Risk' => 'Money', 'Since' => ''],
            ['r' => 'Sign in'],
        );
        $text = MarkdownCases::case($out);
        self::assertStringStartsWith("## SKR-C1 Two lines\n", $text);
        self::assertStringContainsString('- **State:** in review', $text);
        self::assertStringContainsString('- **Estimate:** 1m 30s', $text);
        self::assertStringNotContainsString('Since', $text);
        self::assertStringContainsString('| 1 | Open \| close | a<br>b | **See** |', $text);
        self::assertStringContainsString('| 2 | Routine: Sign in | who = isla<br>day = Monday |  |', $text);
        self::assertStringContainsString("### Postconditions\n\nAfter", $text);
        self::assertStringNotContainsString('### Preconditions', $text);
    }

    /**
     * Wherever people write in a case, nothing of it is HTML to whoever reads the file.
     */
    public function test_no_text_of_a_case_becomes_html(): void
    {
        foreach (['<img src=x onerror=a>', '</td><script>', '<!-- x', "a\n<svg/onload=b>", '<a'] as $words) {
            $text = MarkdownCases::case(
                new CaseOut(
                    'SKR-C1',
                    new CaseText($words, $words, $words, $words, [
                        new Step($words, $words, $words),
                        new Step('', '', '', [], 'r', ['who' => $words]),
                    ]),
                    [$words],
                    $words,
                    'high',
                    CaseState::InReview,
                    true,
                    $words,
                    [$words],
                    90,
                    [$words => $words],
                    $words,
                    false,
                    [$words => $words],
                    ['r' => $words],
                ),
            );
            self::assertDoesNotMatchRegularExpression('/<(?!br>)[a-z\/!?]/i', $text);
            self::assertGreaterThan(14, substr_count($text, '&lt;'), $words);
        }
    }

    public function test_a_case_of_json_is_taken_as_any_other_files_is(): void
    {
        $around = new ImportContext(
            people: ['maren' => 'u1'],
            routines: ['sign in' => 'r1'],
            tables: ['people' => 't1'],
            fields: ['risk' => new CustomField('f', 'Risk', 'choice', ['High'])],
        );
        $json = JsonCases::read(
            (string) json_encode([
                'format' => JsonCases::FORMAT,
                'version' => 1,
                'cases' => [
                    [
                        'key' => 'x-c1',
                        'title' => '=1+1',
                        'folder' => ['A / B', 'C'],
                        'labels' => ['a'],
                        'estimate' => 90,
                        'automated' => true,
                        'owner' => 'Maren',
                        'table' => 'People',
                        'custom' => ['Risk' => 'high'],
                        'steps' => [['action' => ' Open '], ['routine' => 'Sign In', 'values' => ['Who' => 'isla']]],
                    ],
                    ['title' => '', 'priority' => 'whenever', 'steps' => [['routine' => 'Gone']]],
                    'no case at all',
                ],
            ]),
        );
        [$one, $two] = array_values(iterator_to_array($json->cases($around)));
        self::assertSame([], $one->errors);
        self::assertSame(
            ['X-C1', '=1+1', ['A / B', 'C'], 90, true, 'u1', 't1', 'High'],
            [
                $one->key,
                $one->title(),
                ...array_map(static fn(string $f): mixed => $one->fields[$f], [
                    'folder',
                    'estimate',
                    'automated',
                    'owner',
                    'table',
                    'field: Risk',
                ]),
            ],
        );
        self::assertEquals([new Step(' Open '), new Step('', '', '', [], 'r1', ['who' => 'isla'])], $one->steps);
        self::assertSame(['priority', 'title', 'routine'], array_map(static fn($e): ?string => $e->column, $two->errors));
    }

    /**
     * @return iterable<string, array{string}>
     */
    public static function others(): iterable
    {
        yield 'no JSON' => ['{'];
        yield 'a list' => ['[]'];
        yield 'another document' => ['{"format":"x"}'];
        yield 'another version' => ['{"format":"lucid-step/casebook","version":2}'];
        yield 'very deep' => [str_repeat('[', 100) . str_repeat(']', 100)];
    }

    #[DataProvider('others')]
    public function test_what_is_no_casebook_is_refused(string $json): void
    {
        $this->expectException(Unreadable::class);
        JsonCases::read($json);
    }
}
