<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Forecast;

use LucidStep\Core\Forecast\Duration;
use LucidStep\Core\Forecast\NotADuration;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class DurationTest extends TestCase
{
    /**
     * @return iterable<array{string, int}>
     */
    public static function accepted(): iterable
    {
        yield ['90s', 90];
        yield ['12m', 720];
        yield ['1h 20m', 4800];
        yield ['1h20', 4800];
        yield ['1 h 20 min', 4800];
        yield ['1.5h', 5400];
        yield ['2,5h', 9000];
        yield ['1:30', 90];
        yield ['1:05:00', 3900];
        yield ['15', 900];
        yield [' 24H ', 86_400];
        yield ['90m', 5400];
        yield ['1h 0m 5s', 3605];
        yield ['24:00:00', 86_400];
        yield ['0.5', 30];
    }

    #[DataProvider('accepted')]
    public function test_reads_what_people_write(string $text, int $seconds): void
    {
        self::assertSame($seconds * 1000, Duration::fromText($text)->milliseconds);
    }

    /**
     * @return iterable<array{string}>
     */
    public static function refused(): iterable
    {
        foreach (
            [
                '',
                ' ',
                '0',
                '0m',
                '0:00',
                '-5m',
                'soon',
                '1h 60m',
                '1h60',
                '1:60',
                '1:60:00',
                '0:30:75',
                '25h',
                '24:00:01',
                '1441',
                '1m 2h',
                '5x',
                '1h 2h',
                '1e3',
                '١٥',
                str_repeat('9', 400),
            ]
            as $text
        ) {
            yield [$text];
        }
    }

    #[DataProvider('refused')]
    public function test_refuses_the_rest_and_shows_what_is_accepted(string $text): void
    {
        $this->expectException(NotADuration::class);
        $this->expectExceptionMessageMatches('/Write it like 90s, 12m, 1h 20m/');
        Duration::fromText($text);
    }

    public function test_what_is_written_reads_back_to_the_same_second(): void
    {
        for ($seconds = 1; $seconds <= 86_400; $seconds += 37) {
            $text = Duration::fromMilliseconds($seconds * 1000)->toText();
            self::assertSame($seconds * 1000, Duration::fromText($text)->milliseconds, $text);
        }
        self::assertSame('1h 20m', Duration::fromText('80')->toText());
    }
}
