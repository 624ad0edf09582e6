<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Defects;

use LucidStep\Core\Defects\DefectState;
use LucidStep\Core\Defects\Draft;
use LucidStep\Core\Defects\Failure;
use LucidStep\Core\Defects\WalkedStep;
use LucidStep\Core\Verdict\Verdict;
use PHPUnit\Framework\TestCase;

final class DraftTest extends TestCase
{
    public function test_everything_known_is_filled_in_and_nothing_invented(): void
    {
        $draft = Draft::from(self::failure());
        self::assertSame("Islander's discount with a bike – The bike is discounted as well: total 9.24", $draft->title);
        self::assertSame('Total 10.44.', $draft->expected);
        self::assertSame('The bike is discounted as well: total 9.24. It was 9.24 twice.', $draft->actual);
        self::assertSame(
            <<<'MD'
            - **Build:** 4.2.0-7
            - **Configuration:** Quay tablet

            ## Preconditions

            No bookings.

            ## Steps

            1. Open the page (**pass**)
            3. Enter the card
               Data: HL-2204-2
               1 bike (**fail**)

            ## Expected

            Total 10.44.

            ## Actual

            The bike is discounted as well: total 9.24. It was 9.24 twice.

            ## Evidence

            - fare.png

            ## Links

            - Case SKR-C17, step 3

            MD
            ,
            $draft->report()->markdown(),
        );
        self::assertStringContainsString("STEPS\n\n1. Open the page (pass)\n3. Enter the card", $draft->report()->plain());
        self::assertStringNotContainsString('**', $draft->report()->plain());
        self::assertStringNotContainsString('Remove the bike', $draft->report()->markdown(), 'steps after the failing one stay out');
    }

    public function test_without_a_failing_step_expected_and_actual_stay_empty(): void
    {
        $draft = Draft::from(
            new Failure('Boarding', 'The gate is closed.', steps: [new WalkedStep(1, 'Go', '', 'Open', Verdict::Blocked)]),
        );
        self::assertSame(['', ''], [$draft->expected, $draft->actual]);
        self::assertStringNotContainsString('## Expected', $draft->report()->markdown());
        self::assertSame('Boarding – The gate is closed', $draft->title);
    }

    public function test_each_part_is_a_field_of_its_own_with_what_is_to_be_said_of_its_steps(): void
    {
        $draft = Draft::from(
            new Failure(
                'Boarding',
                'The gate stays shut.',
                steps: [
                    new WalkedStep(2, 'Hold the code', '', 'It opens', Verdict::Fail, 5, 2),
                    new WalkedStep(4, 'Walk through', '', '', Verdict::Blocked, waitsOn: 'the gate'),
                ],
                environment: 'Quay',
                links: ['Case SKR-C2'],
            ),
        );
        self::assertSame("2. Hold the code (**fail**, fails 2 of 5)\n4. Walk through (**blocked**, waits on the gate)", $draft->steps);
        self::assertSame(['Quay', '', "## Links\n\n- Case SKR-C2"], [$draft->environment, $draft->preconditions, $draft->body]);
    }

    public function test_titles_are_cut_at_words_and_never_longer_than_allowed(): void
    {
        self::assertSame('Fares', Draft::title('Fares', "  \n "));
        self::assertSame('Fares – Wrong', Draft::title('Fares', 'Wrong. And more.'));
        self::assertSame('Fares – Total is 9.24 instead', Draft::title('Fares', "Total is 9.24 instead\nsecond line"));
        $long = Draft::title(str_repeat('word ', 40), str_repeat('other ', 60));
        self::assertLessThanOrEqual(120, grapheme_strlen($long));
        self::assertStringEndsWith('other…', $long);
        $hard = Draft::title('Case', str_repeat('x', 300));
        self::assertSame(120, grapheme_strlen($hard));
        self::assertStringEndsWith('x…', $hard);
    }

    public function test_any_title_fits_and_is_one_line(): void
    {
        mt_srand(11);
        for ($i = 0; $i < 500; $i++) {
            $make = static fn(): string => implode(
                '',
                array_map(static fn(): string => ['a', 'bc ', '. ', "\n", 'é', '👩‍🚒', '! '][mt_rand(0, 6)], range(0, mt_rand(0, 160))),
            );
            $title = Draft::title($make(), $make());
            self::assertLessThanOrEqual(120, grapheme_strlen($title));
            self::assertStringNotContainsString("\n", $title);
        }
    }

    public function test_facts_of_the_walk_stand_in_order_and_what_is_empty_says_so(): void
    {
        $draft = Draft::from(
            new Failure(
                'Fares',
                'Wrong.',
                '4.2',
                'Phone',
                ['route' => 'Holm', 'card' => '', 'a' => '0'],
                environment: 'Staging, half the lanes',
            ),
        );
        self::assertStringStartsWith(
            "Build: 4.2\nConfiguration: Phone\nEnvironment: Staging, half the lanes\n\n" .
                "DATA ROW\n\n- route = Holm\n- card = (empty)\n- a = 0\n",
            $draft->report()->plain(),
        );
    }

    public function test_every_state_can_be_reached_and_none_is_a_dead_end(): void
    {
        $seen = [DefectState::New->value => true];
        $ahead = [DefectState::New];
        while ($state = array_pop($ahead)) {
            self::assertNotSame([], $state->moves(true));
            self::assertNotContains($state, $state->moves(true));
            foreach ($state->moves(true) as $next) {
                if (!isset($seen[$next->value])) {
                    $seen[$next->value] = true;
                    $ahead[] = $next;
                }
            }
        }
        self::assertCount(count(DefectState::cases()), $seen);
    }

    private static function failure(): Failure
    {
        return new Failure(
            "Islander's discount with a bike",
            'The bike is discounted as well: total 9.24. It was 9.24 twice.',
            '4.2.0-7',
            'Quay tablet',
            [],
            'No bookings.',
            [
                new WalkedStep(1, 'Open the page', '', 'It is shown', Verdict::Pass),
                new WalkedStep(2, 'Skipped', '', '', Verdict::NotRun),
                new WalkedStep(3, 'Enter the card', "HL-2204-2\n1 bike", 'Total 10.44.', Verdict::Fail),
                new WalkedStep(4, 'Remove the bike', '', '', Verdict::Pass),
            ],
            3,
            ['fare.png'],
            ['Case SKR-C17, step 3'],
        );
    }
}
