<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Defects;

use LucidStep\App\Models\User;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * Defects as files: what fits a filter, in each format.
 */
final class ExportTest extends FeatureTestCase
{
    private User $me;

    protected function setUp(): void
    {
        parent::setUp();
        $this->me = $this->world->person('tess');
        $this->as($this->me, 'POST', '/projects/TST/defects', [
            'title' => '=1+1 <b>bold</b>',
            'steps' => "1. Go\n3. Hold",
            'actual' => 'Shut, "always"',
            'labels' => '"deck, car", quay',
        ])->assertCreated();
        $this->as($this->me, 'POST', '/projects/TST/defects', ['title' => 'Another', 'severity' => 'minor'])->assertCreated();
        $this->as($this->me, 'POST', '/defects/TST-D1/comments', ['text' => 'Also at night'])->assertCreated();
    }

    public function test_each_format_says_what_the_defect_says(): void
    {
        $csv = $this->file('csv');
        $rows = array_map(static fn(string $l): array => str_getcsv($l, ',', '"', ''), explode("\r\n", trim(substr($csv, 3))));
        self::assertCount(3, $rows);
        self::assertSame(['key', 'title', 'state'], array_slice($rows[0], 0, 3));
        $first = array_combine(array_map(strval(...), $rows[0]), $rows[2]);
        self::assertSame(
            ["'=1+1 <b>bold</b>", '"deck, car", quay', 'Shut, "always"'],
            [$first['title'], $first['labels'], $first['actual']],
        );

        $json = (array) json_decode($this->file('json'), true, 8, JSON_THROW_ON_ERROR);
        self::assertSame(['TST-D2', 'TST-D1'], array_column($json, 'key'));
        self::assertSame([[], ['Also at night']], array_map(static fn(array $d): array => array_column($d['comments'], 'text'), $json));
        self::assertSame([['deck, car', 'quay']], array_column(array_slice($json, 1), 'labels'));

        self::assertStringContainsString("# TST-D1 =1+1 <b>bold</b>\n\n- **State:** new", $this->file('md'));
        self::assertStringContainsString("STEPS\n\n1. Go\n3. Hold", $this->file('txt'));
        $page = $this->file('html');
        self::assertStringNotContainsString('<b>bold', $page);
        self::assertStringContainsString('&lt;b&gt;bold', $page);
        self::assertStringContainsString('3. Hold', $page, 'steps keep their numbers');
    }

    public function test_only_what_fits_is_in_it_by_few_questions_however_many_there_are(): void
    {
        self::assertStringNotContainsString('TST-D1', $this->file('md', '&severity=minor'));
        self::assertStringNotContainsString('TST-D2', $this->file('md', '&ids=TST-D1'));
        self::assertSame("[]\n", $this->file('json', '&q=nowhere'));
        $this->as($this->me, 'GET', '/projects/TST/defect-export?format=xml')
            ->assertUnprocessable()
            ->assertJsonPath('errors.format.0', 'One of csv, json, md, txt, html.');
        $few = array_map(fn(string $f): int => $this->queries(fn() => $this->file($f)), ['csv', 'json', 'md']);
        for ($n = 0; $n < 12; $n++) {
            $this->as($this->me, 'POST', '/projects/TST/defects', ['title' => "More {$n}"])->assertCreated();
        }
        self::assertSame($few, array_map(fn(string $f): int => $this->queries(fn() => $this->file($f)), ['csv', 'json', 'md']));
    }

    private function file(string $format, string $more = ''): string
    {
        $answer = $this->as($this->me, 'GET', "/projects/TST/defect-export?format={$format}{$more}")->assertOk();
        $answer->assertHeader('Content-Security-Policy', "default-src 'none'; style-src 'unsafe-inline'; sandbox allow-modals");

        return $answer->streamedContent();
    }
}
