<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Record;

use LucidStep\Core\Record\CanonicalJson;
use LucidStep\Core\Record\Event;
use LucidStep\Core\Record\FreeText;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * What people wrote, in payloads of any shape.
 */
final class FreeTextTest extends TestCase
{
    private const ID = '0190f0aa-0000-7000-8000-000000000001';

    /**
     * @return iterable<string, array{int}>
     */
    public static function seeds(): iterable
    {
        foreach (range(1, 60) as $seed) {
            yield "seed {$seed}" => [$seed];
        }
    }

    /**
     * Wherever a text stands: its words are not in the bytes, its digest is, once; what is taken out is out, and the bytes are the
     * same without it.
     */
    #[DataProvider('seeds')]
    public function test_texts_are_digested_removed_and_proven_wherever_they_stand(int $seed): void
    {
        mt_srand($seed);
        $payload = $this->payload(3);
        $event = self::event($payload)->salted();
        $texts = FreeText::in($payload);
        $bytes = $event->bytes();
        self::assertSame(array_keys($texts), array_keys($event->salts));
        foreach ($texts as $text) {
            self::assertStringNotContainsString($text, $bytes);
        }
        $said = FreeText::digests(json_decode($bytes, true, 64, JSON_THROW_ON_ERROR)['payload']);
        self::assertEqualsCanonicalizing($event->digests(), $said);
        self::assertCount(\count($texts), array_unique($said));

        $gone = array_filter($texts, static fn(): bool => 1 === mt_rand(0, 1));
        $left = FreeText::replaced($payload, $gone);
        foreach ($gone as $path => $text) {
            self::assertSame(FreeText::REMOVED, FreeText::in($left)[$path]);
            self::assertStringNotContainsString($text, (string) json_encode($left, JSON_UNESCAPED_UNICODE));
        }
        $after = new Event(self::ID, 1, 'x', null, null, 1, null, $left, [], 'attempt', array_diff_key($event->salts, $gone));
        self::assertSame($bytes, $after->bytes(array_intersect_key($said, $gone)), 'the same bytes without the texts');
        self::assertSame(
            CanonicalJson::encode($payload),
            CanonicalJson::encode(FreeText::replaced($payload, [])),
            'nothing taken out, nothing changed',
        );
    }

    /**
     * @return iterable<string, array{string, mixed, bool}>
     */
    public static function fields(): iterable
    {
        foreach (['note', 'happened', 'a_field_of_tomorrow', 'to', 'from', 'name', 'link', 'why', 'environment', 'verdict'] as $field) {
            yield "words as {$field}" => [$field, 'It sank', true];
        }
        foreach (['pass', 'fail', 'blocked', 'not_applicable', 'not_run', 'released', 'closed'] as $value) {
            yield "{$value} as a value" => ['to', $value, false];
        }
        yield 'an id' => ['anything', self::ID, false];
        yield 'a hash' => ['anything', str_repeat('ab', 32), false];
        yield 'nearly an id' => ['anything', strtoupper(self::ID) . '!', true];
        yield 'nearly a hash' => ['anything', str_repeat('ab', 32) . 'c', true];
        yield 'nearly a verdict' => ['to', 'Pass', true];
        yield 'nothing' => ['note', '', false];
        yield 'a number' => ['note', 7, false];
        yield 'a media type' => ['media_type', 'image/png', false];
    }

    #[DataProvider('fields')]
    public function test_every_text_is_free_text_but_what_the_application_chose(string $field, mixed $value, bool $free): void
    {
        self::assertSame($free ? [$field => $value] : [], FreeText::in([$field => $value]));
        self::assertSame($free ? ["rows.0.{$field}" => $value] : [], FreeText::in(['rows' => [(object) [$field => $value]]]));
    }

    public function test_the_same_words_twice_cannot_be_told_apart_from_other_words(): void
    {
        $event = self::event(['one' => 'ja', 'two' => 'ja', 'three' => 'nein'])->salted();
        self::assertCount(3, array_unique($event->digests()));
        foreach ($event->salts as $salt) {
            self::assertMatchesRegularExpression('/^[0-9a-f]{32}$/D', $salt);
        }
        self::assertSame(hash('sha256', "{$event->salts['one']}\nja"), $event->digests()['one']);
    }

    /**
     * @return array<string, mixed>
     */
    private function payload(int $deep): array
    {
        $payload = [];
        foreach (range(1, mt_rand(1, 5)) as $n) {
            $payload["field_{$n}"] = match (mt_rand(0, $deep > 0 ? 7 : 4)) {
                0 => 'GEHEIM-' . mt_rand() . ' 你好 "x" \\ ' . "\n",
                1 => 'words ' . mt_rand(),
                2 => mt_rand(-1000, 1000),
                3 => ['pass', '', self::ID, null, true][mt_rand(0, 4)],
                4 => new \stdClass(),
                5 => $this->payload($deep - 1),
                6 => array_map(fn(): array => $this->payload($deep - 1), range(1, mt_rand(1, 3))),
                default => [],
            };
        }

        return $payload;
    }

    /**
     * @param  array<string, mixed>  $payload
     */
    private static function event(array $payload): Event
    {
        return new Event(self::ID, 1, 'x', null, null, 1, null, $payload);
    }
}
