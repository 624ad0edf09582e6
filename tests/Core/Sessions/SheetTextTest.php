<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Sessions;

use LucidStep\Core\Sessions\Focus;
use LucidStep\Core\Sessions\LineKind;
use LucidStep\Core\Sessions\SessionClock;
use LucidStep\Core\Sessions\SessionLine;
use LucidStep\Core\Sessions\SheetText;
use LucidStep\Core\Sessions\TimeShares;
use LucidStep\Core\Sessions\Work;
use PHPUnit\Framework\TestCase;

/**
 * A session as one text: everything that was said, in order, with what came of it.
 */
final class SheetTextTest extends TestCase
{
    public function test_all_of_it_in_order(): void
    {
        $shares = TimeShares::of(
            new SessionClock([[0, 4_000_000]]),
            [[1_000_000, Focus::Opportunity], [3_000_000, Work::SettingUp]],
            4_000_000,
        );
        $text = (new SheetText(
            'SKR-S1',
            'Refunds',
            'with odd clocks',
            ['Tester' => 'Tess', 'Build' => ''],
            $shares,
            [
                new SessionLine('a', LineKind::Note, 61_000, "One\ntwo"),
                new SessionLine('b', LineKind::Issue, 3_725_000, 'Half is paid'),
                new SessionLine('c', LineKind::Capture, 3_726_000),
            ],
            ['b' => ['SKR-D1', 'SKR-C2']],
            ['c' => 'seen.png'],
            12,
            'The edge',
            '',
        ))->markdown();
        self::assertSame(
            <<<'MARKDOWN'
            # SKR-S1 Refunds

            Explore with odd clocks.

            - **Tester:** Tess

            ## Time

            - charter 16:40 (25 %), opportunity 50:00 (75 %)
            - testing 50:00 (75 %), investigating 0:00 (0 %), setting up 16:40 (25 %)

            ## Covered

            The edge

            ## Issues

            - 1:02:05 Half is paid → SKR-D1, SKR-C2

            ## What happened

            - 1:01 Note: One
              two
            - 1:02:05 Issue: Half is paid → SKR-D1, SKR-C2
            - 1:02:06 Capture: (seen.png)

            12 acts were observed beside.

            MARKDOWN
            ,
            $text,
        );
    }

    public function test_of_nothing_little_is_said(): void
    {
        $shares = TimeShares::of(new SessionClock([]), [], 0);
        $text = (new SheetText('SKR-S1', 'Refunds', '', [], $shares, [], [], [], 0, '', ''))->markdown();
        self::assertStringStartsWith("# SKR-S1 Refunds\n\n## Time\n\n- charter 0:00 (0 %)", $text);
        self::assertStringNotContainsString('What happened', $text);
    }
}
