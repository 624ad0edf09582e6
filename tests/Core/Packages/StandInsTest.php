<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Packages;

use League\CommonMark\CommonMarkConverter;
use League\Config\Configuration;
use League\Config\Exception\UnknownOptionException;
use League\Config\Exception\ValidationException;
use Nette\Schema\Expect;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Clock\NativeClock;

/**
 * The small packages that stand in for four the registry lacks.
 */
final class StandInsTest extends TestCase
{
    public function test_the_clock_tells_the_time_in_its_zone(): void
    {
        $clock = new NativeClock('Europe/Dublin');
        self::assertSame('Europe/Dublin', $clock->now()->getTimezone()->getName());
        self::assertSame('UTC', $clock->withTimeZone('UTC')->now()->getTimezone()->getName());
        self::assertEqualsWithDelta(time(), $clock->now()->getTimestamp(), 2);
        $before = microtime(true);
        $clock->sleep(0.02);
        self::assertGreaterThanOrEqual(0.019, microtime(true) - $before);
    }

    public function test_the_first_and_last_of_an_array(): void
    {
        self::assertSame([1, 3], [array_first(['a' => 1, 2, 3]), array_last(['a' => 1, 2, 3])]);
        self::assertSame([null, null], [array_first([]), array_last([])]);
        self::assertFalse(array_first([false, true]));
    }

    public function test_handlers_are_told_and_left_in_place(): void
    {
        $handler = static fn(int $level): bool => $level < 0;
        set_error_handler($handler);
        get_error_handler();
        self::assertSame($handler, get_error_handler(), 'asking twice leaves it in place');
        restore_error_handler();
        $last = static function (\Throwable $e): void {};
        set_exception_handler($last);
        get_exception_handler();
        self::assertSame($last, get_exception_handler());
        restore_exception_handler();
    }

    public function test_options_are_checked_as_a_whole_at_the_first_read(): void
    {
        $config = new Configuration(['size' => Expect::int(3), 'deep' => Expect::structure(['word' => Expect::string('x')])]);
        self::assertSame(3, $config->get('size'));
        self::assertSame('x', $config->reader()->get('deep/word'));
        $config->merge(['deep' => ['word' => 'y']]);
        $config->set('size', 4);
        self::assertSame([4, 'y'], [$config->get('size'), $config->get('deep.word')]);
        self::assertTrue($config->exists('deep'));
        self::assertFalse($config->exists('deep/none'));
        $config->set('size', 'large');
        $this->expectException(ValidationException::class);
        $config->get('deep.word');
    }

    public function test_an_unknown_option_is_named(): void
    {
        $config = new Configuration();
        $config->addSchema('a', Expect::int(1));
        try {
            $config->get('b');
            self::fail('It was found.');
        } catch (UnknownOptionException $e) {
            self::assertSame('b', $e->getPath());
        }
    }

    public function test_the_markdown_reader_that_needs_it_works(): void
    {
        self::assertSame(
            "<p><strong>a</strong> &lt;b&gt;</p>\n",
            (new CommonMarkConverter(['html_input' => 'escape']))->convert('**a** <b>')->getContent(),
        );
    }
}
