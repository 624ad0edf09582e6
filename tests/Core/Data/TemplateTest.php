<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Data;

use LucidStep\Core\Data\FilledPart;
use LucidStep\Core\Data\Mask;
use LucidStep\Core\Data\Placeholder;
use LucidStep\Core\Data\Template;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class TemplateTest extends TestCase
{
    /**
     * @return iterable<string, array{string, string, int}>
     */
    public static function texts(): iterable
    {
        yield 'a place' => ['Pay {{price}} now', 'Pay 12.40 now', 0];
        yield 'spaces inside' => ['Pay {{ price }}', 'Pay 12.40', 0];
        yield 'upper and lower case' => ['{{Price}}{{PRICE}}', '12.4012.40', 0];
        yield 'a literal' => ['Write \{{price}}', 'Write {{price}}', 0];
        yield 'a backslash before a place' => ['C:\\\\{{price}}', 'C:\12.40', 0];
        yield 'a backslash and a literal' => ['C:\\\\\{{price}}', 'C:\{{price}}', 0];
        yield 'backslashes elsewhere' => ['a\b\\\\c', 'a\b\\\\c', 0];
        yield 'not closed' => ['Pay {{price and go', 'Pay {{price and go', 1];
        yield 'no name' => ['{{two words}}', '{{two words}}', 1];
        yield 'nothing inside' => ['{{}}', '{{}}', 1];
        yield 'a brace before' => ['{{{price}}}', '{12.40}', 0];
        yield 'an empty value' => ['Note: {{note}}.', 'Note: (empty).', 0];
        yield 'a value with a place in it stays a value' => ['{{trap}}', '{{price}}', 0];
        yield 'letters of any script' => ['{{Größe_1}}', 'XL', 0];
        yield 'an unknown name stays' => ['{{colour}}', '{{colour}}', 0];
        yield 'many braces' => ['{{{{{{', '{{{{{{', 1];
    }

    #[DataProvider('texts')]
    public function test_values_are_filled_in_in_one_pass(string $text, string $shown, int $warnings): void
    {
        $template = Template::parse($text);
        $parts = $template->fill(['price' => '12.40', 'note' => '', 'trap' => '{{price}}', 'größe_1' => 'XL']);
        self::assertSame($shown, implode('', array_map(static fn(FilledPart $p): string => $p->shown(), $parts)));
        self::assertCount($warnings, $template->warnings);
    }

    public function test_whatever_is_parsed_is_written_so_that_it_reads_back_the_same(): void
    {
        mt_srand(7);
        $alphabet = ['{', '{{', '}', '}}', '\\', '\\\\', '\{{', '{{a}}', '{{ b }}', 'x', ' ', "\n", 'é', '_'];
        for ($i = 0; $i < 4000; $i++) {
            $text = '';
            for ($n = mt_rand(0, 9); $n > 0; $n--) {
                $text .= $alphabet[mt_rand(0, \count($alphabet) - 1)];
            }
            $once = Template::parse($text);
            $again = Template::parse($once->source());
            self::assertEquals(self::meaning($once), self::meaning($again), $text);
        }
    }

    public function test_values_written_in_at_once_read_as_the_pieces_do(): void
    {
        mt_srand(11);
        $alphabet = ['{{a}}', '{{ B }}', '{{7}}', '{{gone}}', '\\{{', '\\', '{', '}}', 'x ', "\n", '`'];
        $values = ['a' => 'one `two`', 'b' => '', '7' => '{{a}}'];
        for ($i = 0; $i < 4000; $i++) {
            $text = '';
            for ($n = mt_rand(0, 9); $n > 0; $n--) {
                $text .= $alphabet[mt_rand(0, \count($alphabet) - 1)];
            }
            $template = Template::parse($text);
            $parts = $template->fill($values, ['a']);
            $shown = [];
            foreach ($values as $name => $value) {
                $shown[$name] = (new FilledPart($value, (string) $name, 'a' === $name))->shown();
            }
            self::assertSame(
                implode('', array_map(static fn(FilledPart $p): string => $p->shown(), $parts)),
                $template->write($shown),
                $text,
            );
            self::assertSame(
                array_values(array_filter(array_unique(array_map(static fn(FilledPart $p): ?string => $p->name, $parts)))),
                array_values(array_intersect_key($template->places, $values)),
                $text,
            );
        }
    }

    public function test_what_is_put_in_for_a_parameter_may_ask_for_a_column(): void
    {
        $text = Template::parse('Sign in as {{who}}, see \{{who}}')->with(['who' => Template::parse('{{user}} \{{x}}')]);
        self::assertSame(['user'], $text->names());
        self::assertSame('Sign in as {{user}} \{{x}}, see \{{who}}', $text->source());
    }

    public function test_a_secret_is_shown_as_dots_of_one_length(): void
    {
        $parts = Template::parse('{{pin}} {{code}}')->fill(['pin' => '1', 'code' => 'long-secret-code'], ['pin', 'code']);
        self::assertSame(['••••', ' ', '••••'], array_map(static fn(FilledPart $p): string => $p->shown(), $parts));
        self::assertSame('1', $parts[0]->text);
    }

    public function test_secrets_of_four_characters_and_more_do_not_leave_in_text(): void
    {
        $mask = new Mask(['abc', 'hunter22', 'hunter22-and-more', '', 'älänt']);
        self::assertSame('abc •••• •••• ••••', $mask->text('abc hunter22 hunter22-and-more älänt'));
        self::assertSame('nothing', (new Mask([]))->text('nothing'));
    }

    /**
     * @return list<mixed>
     */
    private static function meaning(Template $t): array
    {
        $merged = [];
        foreach ($t->parts as $part) {
            if (\is_string($part) && \is_string(end($merged))) {
                $merged[] = array_pop($merged) . $part;
            } else {
                $merged[] = $part instanceof Placeholder ? [$part->key()] : $part;
            }
        }

        return $merged;
    }
}
