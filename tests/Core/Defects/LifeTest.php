<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Defects;

use LucidStep\Core\Defects\Chains;
use LucidStep\Core\Defects\DefectState;
use LucidStep\Core\Defects\FieldEdit;
use LucidStep\Core\Defects\Mentions;
use PHPUnit\Framework\TestCase;

final class LifeTest extends TestCase
{
    /** From where to where, first by developers, then by whoever files defects beside that. */
    private const TABLE = [
        'new' => ['accepted in_work fixed needs_information rejected duplicate', 'closed'],
        'accepted' => ['in_work fixed needs_information rejected duplicate', 'closed'],
        'in_work' => ['accepted fixed needs_information rejected duplicate', 'closed'],
        'reopened' => ['accepted in_work fixed needs_information rejected duplicate', 'closed'],
        'needs_information' => ['new rejected duplicate', 'closed'],
        'fixed' => ['in_work needs_information', 'verified reopened'],
        'verified' => ['', 'closed reopened'],
        'closed' => ['', 'reopened'],
        'rejected' => ['', 'reopened'],
        'duplicate' => ['', 'reopened'],
    ];

    public function test_every_state_goes_where_the_table_says_by_whom_it_says_and_nowhere_else(): void
    {
        self::assertCount(count(DefectState::cases()), self::TABLE);
        foreach (self::TABLE as $from => [$developer, $tester]) {
            $state = DefectState::from($from);
            $names = static fn(bool $mayFile): array => array_map(static fn(DefectState $s): string => $s->value, $state->moves($mayFile));
            $split = static fn(string $words): array => '' === $words ? [] : explode(' ', $words);
            self::assertSame($split($developer), $names(false), $from);
            self::assertSame([...$split($developer), ...$split($tester)], $names(true), $from);
        }
    }

    public function test_what_was_asked_goes_back_to_where_it_was(): void
    {
        foreach (DefectState::cases() as $before) {
            if (\in_array(DefectState::NeedsInformation, $before->moves(false), true)) {
                self::assertContains($before, DefectState::NeedsInformation->moves(false, $before), $before->value);
            }
        }
    }

    public function test_a_word_is_asked_for_where_others_would_ask_why(): void
    {
        $asks = static fn(bool $wasFixed): array => array_values(
            array_map(
                static fn(DefectState $s): string => $s->value,
                array_filter(
                    DefectState::cases(),
                    static fn(DefectState $s): bool => DefectState::New->asksWordFor($s, DefectState::New, $wasFixed),
                ),
            ),
        );
        self::assertSame(['needs_information', 'reopened', 'closed', 'rejected'], $asks(false));
        self::assertSame(['needs_information', 'reopened', 'rejected'], $asks(true));
        self::assertFalse(DefectState::NeedsInformation->asksWordFor(DefectState::Reopened, DefectState::Reopened, false), 'an answer');
    }

    public function test_a_chain_of_duplicates_leads_to_its_first_and_can_never_be_closed_to_a_ring(): void
    {
        $chain = new Chains(['d1' => 'd2', 'd2' => 'd3']);
        self::assertSame(['d3', 'd3', 'd3', 'd9'], array_map($chain->first(...), ['d1', 'd2', 'd3', 'd9']));
        self::assertFalse($chain->mayPoint('d3', 'd1'));
        self::assertFalse($chain->mayPoint('d3', 'd3'));
        mt_srand(4);
        for ($turn = 0; $turn < 200; $turn++) {
            $of = [];
            for ($n = 0; $n < 30; $n++) {
                [$one, $other] = ['d' . mt_rand(1, 12), 'd' . mt_rand(1, 12)];
                if ((new Chains($of))->mayPoint($one, $other)) {
                    $of[$one] = $other;
                }
            }
            foreach (array_keys($of) as $id) {
                self::assertArrayNotHasKey((new Chains($of))->first($id), $of, 'a chain ends');
            }
        }
        // What another way brought in still ends.
        $ring = new Chains(['a' => 'b', 'b' => 'a']);
        self::assertContains($ring->first('a'), ['a', 'b']);
    }

    public function test_two_edits_both_count_unless_they_change_the_same_field_to_two_things(): void
    {
        mt_srand(8);
        $any = static fn(): ?string => [null, '', 'a', 'b'][mt_rand(0, 3)];
        for ($turn = 0; $turn < 2000; $turn++) {
            $base = ['title' => $any(), 'expected' => $any(), 'severity' => $any()];
            $pick = static fn(): array => array_filter($base, static fn(): bool => 1 === mt_rand(0, 1));
            [$mine, $theirs] = [$pick(), $pick()];
            $mine = array_map(static fn(): ?string => $any(), $mine);
            $theirs = array_map(static fn(): ?string => $any(), $theirs);
            $now = [...$base, ...$theirs];
            $edit = new FieldEdit(array_intersect_key($base, $mine), $mine);
            $expected = array_filter(array_keys($mine), static fn(string $f): bool => $now[$f] !== $base[$f] && $now[$f] !== $mine[$f]);
            self::assertSame(
                array_values($expected),
                array_values(array_intersect(array_keys($mine), array_keys($edit->collisions($now)))),
            );
            if ([] === $expected) {
                $after = [...$now, ...array_map(static fn(array $c): ?string => $c[1], $edit->changes($now))];
                self::assertSame([...$base, ...$theirs, ...$mine], $after);
            }
        }
    }

    public function test_people_are_named_by_their_whole_name_once_and_not_in_code_or_addresses(): void
    {
        $names = ['l' => 'Lina Ashgrove', 'a' => 'Ana', 'm' => 'Ana Maria', 'o' => 'Ödön (Büro)', 'e' => ' '];
        self::assertSame(['l'], Mentions::in('@lina ashgrove and @Lina Ashgrove, look', $names));
        self::assertSame(['m'], Mentions::in('@Ana Maria', $names));
        self::assertEqualsCanonicalizing(['m', 'a'], Mentions::in('@Ana Maria, @ana', $names));
        self::assertSame(['o'], Mentions::in('(@ÖDÖN (Büro))', $names));
        self::assertSame([], Mentions::in('mail x@ana or a.@Ana, @Anabel, Ana', $names));
        self::assertSame([], Mentions::in("`@Ana` and\n```\n@Ana Maria\n```", $names));
        self::assertSame([], Mentions::in('@', $names));
    }
}
