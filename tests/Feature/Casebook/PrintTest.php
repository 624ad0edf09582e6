<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Casebook;

use LucidStep\App\Areas\Casebook\Exchange\PrintPage;
use LucidStep\Core\Casebook\CaseState;
use LucidStep\Core\Casebook\CaseText;
use LucidStep\Core\Casebook\Step;
use LucidStep\Core\Exchange\CaseOut;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * Cases printed as one page: all of them is in it, and nothing of it is more than words.
 */
final class PrintTest extends FeatureTestCase
{
    private const WORDS = [
        '<script>alert(1)</script>',
        '<img src=x onerror=alert(1)>',
        '"><b>',
        "{{ config('app.key') }}",
        '{!! 1 !!}',
        '@php(exit)',
        'Größe',
        "two\nlines",
        'a & b',
        '**bold**',
        '[there](javascript:alert(1))',
        '`</td>`',
        '11:00',
    ];

    public function test_everything_written_is_on_the_page_as_words_alone(): void
    {
        mt_srand(17);
        $text = static fn(): string => implode(' ', array_map(static fn(): string => self::WORDS[mt_rand(0, 12)], range(0, mt_rand(0, 3))));
        for ($turn = 0; $turn < 40; $turn++) {
            $cases = [];
            for ($i = 1; $i <= 1 + ($turn % 3); $i++) {
                $steps = array_map(static fn(): Step => new Step($text(), $text(), $text()), range(0, mt_rand(0, 3)));
                $steps[] = new Step('', '', '', [], 'r1', ['who' => $text(), 'day' => $text()]);
                $cases[] = $this->case("TST-C{$i}", new CaseText($text(), $text(), $text(), $text(), $steps), [$text(), $text()]);
            }
            $page = $this->page($cases, static fn(): null => null);
            foreach (['script', 'img', 'iframe', 'b'] as $tag) {
                self::assertSame(0, $page->getElementsByTagName($tag)->length, $tag);
            }
            foreach ($page->getElementsByTagName('*') as $element) {
                foreach ($element->attributes ?? [] as $attribute) {
                    self::assertStringStartsNotWith('on', $attribute->nodeName);
                    self::assertStringNotContainsString('javascript:', $attribute->nodeValue ?? '');
                }
            }
            self::assertSame(\count($cases), $page->getElementsByTagName('article')->length);
            $rows = array_sum(array_map(static fn(CaseOut $c): int => \count($c->text->steps), $cases));
            self::assertSame($rows, $page->getElementsByTagName('tbody')->length === 0 ? 0 : $this->rows($page));
            foreach ($cases as $at => $case) {
                $shown = $this->flat($page->getElementsByTagName('article')->item($at)?->textContent);
                self::assertStringContainsString($this->flat("{$case->key} {$case->text->title}"), $shown);
                foreach ($case->text->steps as $step) {
                    self::assertStringContainsString($this->flat($step->data), $shown);
                    foreach ($step->values as $name => $value) {
                        self::assertStringContainsString($this->flat("{$name} = {$value}"), $shown);
                    }
                }
            }
        }
    }

    public function test_pictures_are_in_the_page_until_it_has_enough_and_nothing_is_fetched(): void
    {
        $image = imagecreatetruecolor(2, 2);
        ob_start();
        imagepng($image);
        $png = (string) ob_get_clean();
        $files = static fn(string ...$sha): array => array_map(
            static fn(string $s): array => ['sha256' => $s, 'name' => "\"{$s}\".png"],
            array_values($sha),
        );
        $steps = [new Step('Look', '', '', $files('png', 'gone', 'text')), new Step('Again', '', '', $files('large', 'png'))];
        $large = $png . str_repeat('x', 31 * 1024 * 1024);
        $contents = ['png' => $png, 'text' => 'no picture', 'large' => $large];
        $page = $this->page(
            [$this->case('TST-C1', new CaseText('Pictures', steps: $steps), [])],
            static fn(string $sha): ?string => $contents[$sha] ?? null,
        );
        $shown = [];
        foreach ($page->getElementsByTagName('img') as $img) {
            self::assertStringStartsWith('data:image/png;base64,', $img->getAttribute('src'));
            $shown[] = $img->getAttribute('alt');
        }
        self::assertSame(['"png".png', '"large".png'], $shown, 'what comes after 30 MB stands there by its name');
        foreach (['"gone".png', '"text".png'] as $name) {
            self::assertStringContainsString($name, (string) $page->textContent);
        }
        $policy = $page->getElementsByTagName('meta')->item(1)?->getAttribute('content');
        self::assertSame("default-src 'none'; style-src 'unsafe-inline'; img-src data:", $policy);
        self::assertSame(0, $page->getElementsByTagName('link')->length);
    }

    public function test_what_a_case_does_not_have_leaves_no_trace(): void
    {
        $page = $this->page([$this->case('TST-C1', new CaseText('Bare'), [])], static fn(): null => null);
        self::assertSame(0, $page->getElementsByTagName('table')->length);
        self::assertSame(0, $page->getElementsByTagName('h3')->length);
        self::assertSame('draft · functional · high', $page->getElementsByTagName('p')->item(0)?->textContent);
    }

    /**
     * @param  list<string>  $folder
     */
    private function case(string $key, CaseText $text, array $folder): CaseOut
    {
        return new CaseOut(
            $key,
            $text,
            $folder,
            'functional',
            'high',
            CaseState::Draft,
            false,
            '',
            [],
            null,
            [],
            null,
            false,
            [],
            ['r1' => 'Begin <i>a</i> booking'],
        );
    }

    /**
     * @param  list<CaseOut>  $cases
     * @param  \Closure(string): ?string  $picture
     */
    private function page(array $cases, \Closure $picture): \DOMDocument
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'print');
        try {
            (new PrintPage())->write($path, $this->world->project, $cases, $picture);
            $page = new \DOMDocument();
            $page->loadHTML((string) file_get_contents($path), \LIBXML_NOERROR | \LIBXML_PARSEHUGE);

            return $page;
        } finally {
            unlink($path);
        }
    }

    private function rows(\DOMDocument $page): int
    {
        $rows = 0;
        foreach ($page->getElementsByTagName('tbody') as $body) {
            $rows += $body->getElementsByTagName('tr')->length;
        }

        return $rows;
    }

    private function flat(?string $text): string
    {
        return trim((string) preg_replace('/\s+/u', ' ', (string) $text));
    }
}
